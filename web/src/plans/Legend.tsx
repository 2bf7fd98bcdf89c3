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
  made("Power", "problem", -0.71, "A", { bar: -0.2, low: -0.3, high: -0.09, worst_case: -0.4 }),
  made("Heat", "tight", 6, "°C", { bar: 0.13, low: -0.02, high: 0.3, worst_case: -0.25 }),
];
const MARKS: [Severity, string, string][] = [
  ["ok", "Whole stone", "OK: no problems found."],
  ["note", "Chipped", "Note: good to know, or a value that is not known."],
  ["tight", "Cracked", "Tight: it works with little to spare."],
  [
    "problem",
    "Split",
    "Problem: the build fails, resets or does not fit. Every fix offered is tested first.",
  ],
];
const SIGNS: [string, string][] = [
  [
    "Limit line",
    "One line for all values. Right of the line is spare; left of the line is short and hatched.",
  ],
  ["Likely range", "90 of 100 likely cases lie inside this range."],
  ["Worst case", "Everything running at once, beyond the daily schedule."],
];

/** How to read a plan: marks, rulers, and what each sign on them means. */
export function Legend() {
  return (
    <section className="legend" aria-label="How to read a plan">
      <h3>How to read a plan</h3>
      <div className="legend-body">
        <dl>
          {SIGNS.map(([name, text]) => (
            <div key={name}>
              <dt>{name}</dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
        <div className="legend-rulers" role="img" aria-label="Three margins on one limit line">
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
