import type { FamilyReport } from "../api/types";
import { Ruler, type RulerSize } from "./Ruler";

interface Props {
  family: FamilyReport;
  before?: FamilyReport | undefined;
  /** [px] */
  width: number;
  height: number;
  size: RulerSize;
}

/** The ruler of a family: what is planned as its bar, everything at once as a hollow tick. */
export function FamilyRuler({ family, before, width, height, size }: Props) {
  return (
    <Ruler
      share={family.checked ? family.ruler_share : null}
      before={before?.ruler_share ?? null}
      low={family.ruler_p05}
      high={family.ruler_p95}
      worst_case={family.worst_case?.ruler_share ?? null}
      severity={family.checked ? family.planned : "note"}
      width={width}
      height={height}
      size={size}
    />
  );
}
