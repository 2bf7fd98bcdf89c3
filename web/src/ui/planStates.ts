/** The status of a build. */
import { STATUSES } from "../api/labels";

export type PlanStatus = keyof typeof STATUSES;
export const PLAN_STATES = Object.keys(STATUSES) as PlanStatus[];

export function planStateWord(state: PlanStatus): string {
  return STATUSES[state];
}
