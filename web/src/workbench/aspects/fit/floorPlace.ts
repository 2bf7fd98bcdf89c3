import type { Change } from "../../../api/types";
import { useBench } from "../../bench";

type Edit = Extract<Change, { op: "edit" }>;
export type FloorSpot = NonNullable<Edit["stands_at"]>;

/** Puts the main board somewhere on the floor of its case. */
export function useFloorPlace(): (spot: FloorSpot) => void {
  const { report, changes } = useBench();
  const line = report.fit.boxes[0]?.line ?? "";
  return (spot) => {
    const patch: Edit[] = [
      { op: "edit", line, quantity: null, owned: null, part_revision: null, stands_at: spot },
    ];
    changes.act({ kind: "patch", patch });
  };
}
