import type { Report } from "../../api/types";

/** The chosen state among some, or the one in which the margin on a ruler is worst. */
export function stateIndex(
  report: Report,
  ruler: string,
  states: { id: string }[],
  chosen: string | null,
): number {
  const margin = report.families.find((family) => family.id === ruler)?.margin;
  const worst = report.margins.find((entry) => entry.id === margin)?.state;
  return Math.max(
    0,
    states.findIndex((state) => state.id === (chosen ?? worst)),
  );
}
