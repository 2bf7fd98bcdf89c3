/** Which flow is drawn, and whether it gets what it wants. Pure. */
import type { Moved, Report, Situation } from "../../../api/types";

/** The chosen flow where it runs, or the one on the ruler, or the first; null where there is none. */
export function chosenTransfer(
  report: Report,
  transfer: string | null,
  atOnce: boolean,
): { situation: Situation; moved: Moved } | null {
  const { situations } = report.data;
  const ruler = report.families.find((family) => family.id === "data")?.margin ?? "";
  const wanted = transfer ?? ruler.split(":")[1];
  const open = situations.filter((entry) => entry.worst_case === atOnce);
  const all = (open.length > 0 ? open : situations).flatMap((situation) =>
    situation.moved.map((moved) => ({ situation, moved })),
  );
  const named = all.find(({ moved }) => moved.transfer === wanted);
  const asked = all.find(({ moved }) => moved.asked_by.includes(wanted ?? ""));
  return named ?? asked ?? all[0] ?? null;
}

/** Whether less passes than is asked for. */
export function isShort(moved: Moved): boolean {
  if (moved.allowed_min !== null && moved.minutes !== null)
    return moved.minutes > moved.allowed_min;
  return moved.wanted_mb_s !== null && moved.could_mb_s < moved.wanted_mb_s;
}
