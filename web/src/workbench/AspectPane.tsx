import Button from "react-bootstrap/Button";

import type { FamilyId, FamilyReport, Report } from "../api/types";
import { severityWord } from "../ui/numbers";
import { CostTable } from "./aspects/cost/CostTable";
import { FitView } from "./aspects/fit/FitView";
import { HeatView } from "./aspects/heat/HeatView";
import { NoiseView } from "./aspects/noise/NoiseView";
import { NotJudged } from "./aspects/NotJudged";
import { PurposeView } from "./aspects/purpose/PurposeView";
import { SupplyView } from "./aspects/supply/SupplyView";
import { Begin } from "./Begin";
import { useBench } from "./bench";

/** The chosen margin's drawing with one line of verdict above it. */
export function AspectPane() {
  const { report, family, openWorking } = useBench();
  if (family === "need") return <PurposeView />;
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
      <Drawing family={chosen.id} judged={chosen.judged} />
    </>
  );
}

function Drawing({ family, judged }: { family: FamilyId; judged: boolean }) {
  switch (family) {
    case "fit":
      return <FitView />;
    case "supply":
      return <SupplyView />;
    case "heat":
      return <HeatView />;
    case "noise":
      return <NoiseView />;
    case "cost":
      return <CostTable />;
    default:
      return judged ? null : <NotJudged family={family} />;
  }
}

function verdict(report: Report, family: FamilyReport): string {
  if (!family.judged) return family.why_not;
  const worst = report.findings.find((finding) => finding.id === family.finding);
  return worst ? `${severityWord(worst.severity)}: ${worst.sentence}` : "Sound";
}
