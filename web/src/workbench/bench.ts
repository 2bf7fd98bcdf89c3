/** What every panel of the workbench looks at: the plan, its report, and what is chosen. */
import { createContext, useContext } from "react";

import type { AspectId, Fix, PlanView, Report, Role } from "../api/types";
import type { WhatIf } from "../api/queries";
import type { PlanChanges } from "../api/usePlanChanges";

export interface Preview {
  finding: string;
  fix: Fix;
}

export interface Bench {
  view: PlanView;
  report: Report;
  /** What is assumed instead of what the plan says; never saved. */
  whatIf: WhatIf;
  setWhatIf: (whatIf: WhatIf) => void;
  changes: PlanChanges;
  family: AspectId;
  setFamily: (family: AspectId) => void;
  chosenLine: string | null;
  setChosenLine: (line: string | null) => void;
  openSnag: string | null;
  setOpenSnag: (finding: string | null) => void;
  /** A fix whose effect is shown on the margins before it is applied. */
  preview: Preview | null;
  setPreview: (preview: Preview | null) => void;
  /** Candidates for a role: in place of a line's part, or as a new line. */
  openParts: (role: Role, line: string | null) => void;
  openDetails: () => void;
  /** Shows the drawing, where there is room for one thing only. */
  showDrawing: () => void;
  /** The working of a figure: a margin, a current, a voltage, a temperature, the bill. */
  openWorking: (figure: string) => void;
}

export const BenchContext = createContext<Bench | null>(null);

export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error("useBench needs a BenchContext around it; see Workbench");
  return bench;
}

/** The margin of the open snag, or null. */
export function openMargin(bench: Bench): string | null {
  return bench.report.findings.find((entry) => entry.id === bench.openSnag)?.margin ?? null;
}

/** Lines that the open snag concerns. */
export function litLines(bench: Bench): Set<string> {
  const finding = bench.report.findings.find((entry) => entry.id === bench.openSnag);
  return new Set(finding?.lines ?? []);
}
