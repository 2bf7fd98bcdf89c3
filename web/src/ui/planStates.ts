/** The status of a build, in words. */
export const PLAN_STATES = ["planning", "ordered", "built", "tested"] as const;
export type PlanStatus = (typeof PLAN_STATES)[number];

const WORDS: Record<PlanStatus, string> = {
  planning: "planning",
  ordered: "ordered",
  built: "built",
  tested: "tested",
};

export function planStateWord(state: PlanStatus): string {
  return WORDS[state];
}
