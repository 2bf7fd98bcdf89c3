import Button from "react-bootstrap/Button";

import type { FamilyReport, Report } from "../api/types";
import { severityWord, worstCaseText } from "../ui/numbers";
import { ASPECTS } from "./aspects/record";
import { Begin } from "./Begin";
import { textOf } from "../ui/text";
import { useBench } from "./bench";

/** The chosen margin's drawing with one line of verdict above it. */
export function AspectPane() {
  const { report, family, openWorking } = useBench();
  const { View, whole } = ASPECTS[family];
  if (whole && View) return <View />;
  const chosen = report.families.find((entry) => entry.id === family);
  if (!chosen) return null;
  if (!report.lines.some((line) => line.role === "board")) return <Begin />;
  return (
    <>
      <div className="aspect-head">
        <h2>{chosen.label}</h2>
        <span className="verdict">{verdict(report, chosen)}</span>
        {chosen.margin !== null && (
          <Button
            variant="link"
            className="ms-auto"
            onClick={() => openWorking(chosen.margin ?? "")}
          >
            Working
          </Button>
        )}
      </div>
      {View && <View />}
    </>
  );
}

function verdict(report: Report, family: FamilyReport): string {
  if (!family.checked) return family.why_not;
  const worst = report.findings.find((finding) => finding.id === family.finding);
  const told = worst ? `${severityWord(worst.severity)}: ${textOf(worst.sentence)}` : "No snags.";
  const worst_case = worst?.margin === family.worst_case?.margin ? "" : worstCaseText(family);
  return worst_case ? `${told} ${worst_case}.` : told;
}
