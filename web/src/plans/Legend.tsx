import type { FamilyReport, Severity } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { FamilyRuler } from "../ui/FamilyRuler";
import { familyFigure, figureTone } from "../ui/numbers";

const WIDTH = 150;

/** Made up to be read: it belongs to no plan. */
function made(
  label: string,
  severity: Severity,
  spare: number,
  unit: string,
  shares: { bar: number; low: number; high: number; worst_case: number },
): FamilyReport {
  return {
    id: "fit",
    label,
    checked: true,
    severity,
    planned: severity,
    margin: null,
    finding: null,
    spare,
    unit,
    ruler_share: shares.bar,
    ruler_p05: shares.low,
    ruler_p95: shares.high,
    worst_case: {
      margin: "",
      label: "",
      spare: 0,
      unit,
      ruler_share: shares.worst_case,
    },
    why_not: "",
  };
}

const SHOWN = [
  made("Fit", "ok", 5.8, "mm", { bar: 0.45, low: 0.38, high: 0.5, worst_case: 0.45 }),
  made("Supply", "problem", -0.71, "A", { bar: -0.2, low: -0.3, high: -0.09, worst_case: -0.4 }),
  made("Heat", "tight", 6, "°C", { bar: 0.13, low: -0.02, high: 0.3, worst_case: -0.25 }),
];
const MARKS: [Severity, string, string][] = [
  ["ok", "Whole stone", "Sound: nothing is wrong."],
  ["note", "Chipped", "A note worth knowing, or something that is not known."],
  ["tight", "Cracked", "Tight: it works, with little to spare."],
  [
    "problem",
    "Split",
    "Stops it: it breaks, resets, or does not go together. Ways out are tried before they are offered.",
  ],
];
const SIGNS: [string, string][] = [
  ["Limit", "One line for all. What lies right of it is spare, left of it short and hatched."],
  ["Whisker", "How sure it is: nine times in ten the truth lies inside."],
  ["Hollow tick", "If everything worked at once, which your day does not ask."],
];

/** How a plan is read: marks, rulers, and what each sign on them means. */
export function Legend() {
  return (
    <section className="legend" aria-label="How a plan is read">
      <h3>How a plan is read</h3>
      <div className="legend-body">
        <dl>
          {SIGNS.map(([name, text]) => (
            <div key={name}>
              <dt>{name}</dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
        <div className="legend-rulers" role="img" aria-label="Three rulers on one limit line">
          {SHOWN.map((family) => (
            <div key={family.label}>
              <Cobble severity={family.severity} silent />
              <span>{family.label}</span>
              <FamilyRuler family={family} width={WIDTH} height={34} size="lg" />
              <span className={`tabular tone-${figureTone(family)}`}>{familyFigure(family)}</span>
            </div>
          ))}
        </div>
        <dl>
          {MARKS.map(([severity, name, text]) => (
            <div key={name}>
              <dt>
                <Cobble severity={severity} silent /> {name}
              </dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
      </div>
    </section>
  );
}
