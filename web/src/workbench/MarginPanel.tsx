import type { FamilyReport } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { FamilyRuler } from "../ui/FamilyRuler";
import { familyFigure, figureTone, worstCaseText } from "../ui/numbers";
import { Ruler } from "../ui/Ruler";
import { Term } from "../ui/Term";
import { ASPECTS } from "./aspects/record";
import { useBench } from "./bench";

const RULER_WIDTH = 87;
const ROW_HEIGHT = 25;

/** The rulers on one limit line; choosing one opens its drawing. */
export function MarginPanel() {
  const { report, family, setFamily, showDrawing, preview } = useBench();
  const after = preview?.fix.after;
  return (
    <div className={`margins ${preview ? "previewing" : ""}`}>
      <div className="margins-scale">
        <span style={{ left: -14 }}>short</span>
        <span className="at-limit" style={{ left: RULER_WIDTH / 3 + 4 }}>
          <Term of="margin">limit</Term>
        </span>
        <span style={{ left: RULER_WIDTH / 3 + 30 }}>spare</span>
      </div>
      {(after ?? report.families).map((entry, index) => (
        <button
          key={entry.id}
          type="button"
          className="btn-plain margin-row"
          aria-pressed={family === entry.id}
          title={[`Open ${entry.label} (${ASPECTS[entry.id].key})`, worstCaseText(entry)]
            .filter(Boolean)
            .join(". ")}
          onClick={() => {
            setFamily(entry.id);
            showDrawing();
          }}
        >
          <Cobble
            severity={entry.checked ? entry.severity : "note"}
            size={17}
            silent={!entry.checked}
          />
          <span className="name">{entry.label}</span>
          <MarginFigure family={entry} before={after && report.families[index]} />
        </button>
      ))}
    </div>
  );
}

interface FigureProps {
  family: FamilyReport;
  /** The margin as it is now, while a fix is previewed. */
  before: FamilyReport | undefined;
}

function MarginFigure({ family, before }: FigureProps) {
  if (!family.checked) {
    return (
      <span className="unjudged">
        <Ruler share={null} severity="note" width={RULER_WIDTH} height={ROW_HEIGHT} />
        {family.why_not}
      </span>
    );
  }
  return (
    <>
      <FamilyRuler
        family={family}
        before={before}
        width={RULER_WIDTH}
        height={ROW_HEIGHT}
        size="lg"
      />
      <span className={`figure tabular tone-${figureTone(family)}`}>{familyFigure(family)}</span>
    </>
  );
}
