/** How far a build has come, in words. */
export const PLAN_STATES = ["thinking", "ordered", "built", "proved"] as const;
export type PlanState = (typeof PLAN_STATES)[number];

const WORDS: Record<PlanState, string> = {
  thinking: "being thought through",
  ordered: "ordered",
  built: "built",
  proved: "proved",
};

export function planStateWord(state: PlanState): string {
  return WORDS[state];
}
