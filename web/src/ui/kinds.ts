/** Kinds of part, many and one, in the order in which a kit is put together. */
import { KINDS as LABELS } from "../api/labels";

export type Kind = keyof typeof LABELS;

export const KINDS = Object.entries(LABELS).map(([id, [many, one]]) => [id, many, one] as const);

/** What one of a kind is called, as it stands beside a name. */
export function kindWord(kind: string): string {
  return kind in LABELS ? LABELS[kind as Kind][1] : kind;
}
