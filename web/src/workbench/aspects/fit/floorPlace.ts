import type { Change } from "../../../api/types";
import { useBench } from "../../bench";

type Edit = Extract<Change, { op: "edit" }>;
export type FloorPosition = NonNullable<Edit["position"]>;

/** Puts the main board somewhere on the floor of its case. */
export function useFloorPlace(): (face: FloorPosition) => void {
  const { report, changes } = useBench();
  const line = report.fit.boxes[0]?.line ?? "";
  return (face) => {
    const patch: Edit[] = [
      { op: "edit", line, quantity: null, owned: null, part_revision: null, position: face },
    ];
    changes.act({ kind: "patch", patch });
  };
}
