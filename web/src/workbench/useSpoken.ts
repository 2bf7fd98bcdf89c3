import { useEffect, useRef } from "react";

import type { Report } from "../api/types";
import { announce } from "../ui/announce";
import { severityWord } from "../ui/numbers";

/** Reads out which verdicts a change has changed: `Power: Problem. Heat: OK.` */
export function useSpoken(report: Report | undefined): void {
  const before = useRef<Report | undefined>(undefined);
  useEffect(() => {
    if (report && before.current && before.current !== report) {
      const told = changedVerdicts(before.current, report);
      if (told) announce(told);
    }
    before.current = report ?? before.current;
  }, [report]);
}

export function changedVerdicts(before: Report, after: Report): string {
  return after.families
    .filter((one) => before.families.find((was) => was.id === one.id)?.severity !== one.severity)
    .map((one) => `${one.label}: ${severityWord(one.severity)}.`)
    .join(" ");
}
