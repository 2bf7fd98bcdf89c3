import { useId } from "react";

import { Hatch } from "../../../ui/Hatch";
import { money } from "../../../ui/numbers";
import { litLines, useBench } from "../../bench";
import { moneyLayout, WIDTH } from "./moneyLayout";

/** Where the money goes: part by part towards the budget, and over it where it does not hold. */
export function MoneyDrawing() {
  const bench = useBench();
  const { report, setChosenLine } = bench;
  const hatch = useId();
  const layout = moneyLayout(report);
  if (!layout) return null;
  const { currency, budget, total } = report.cost;
  const lit = litLines(bench);
  const told = layout.steps.map((step) => `${step.name} ${money(step.toPay, currency)}`).join(", ");
  return (
    <svg
      className="drawing money-drawing"
      viewBox={`0 -18 ${WIDTH} ${layout.height + 18}`}
      role="img"
      aria-label={`Cost by part: ${told}`}
    >
      <Hatch id={hatch} />
      {layout.budget !== null && budget !== null && (
        <>
          <line
            className="limit"
            x1={layout.budget}
            x2={layout.budget}
            y1={-4}
            y2={layout.height - 14}
          />
          <text className="small" x={layout.budget} y={-8} textAnchor="middle">
            budget {money(budget, currency)}
          </text>
        </>
      )}
      {layout.steps.map((step) => (
        <g
          key={step.line}
          className={`money-step ${lit.has(step.line) ? "lit" : ""}`}
          onClick={() => setChosenLine(step.line)}
        >
          <text x={166} y={step.y + 15} textAnchor="end">
            {step.name}
          </text>
          <rect x={step.x} y={step.y + 4} width={step.width} height={15} />
          {step.over > 0 && (
            <rect
              className="over"
              x={step.x + step.width - step.over}
              y={step.y + 4}
              width={step.over}
              height={15}
              style={{ fill: `url(#${hatch})` }}
            />
          )}
          <text className="tabular" x={WIDTH} y={step.y + 16} textAnchor="end">
            {money(step.toPay, currency)}
          </text>
        </g>
      ))}
      <g className="money-total">
        <text x={166} y={layout.total.y + 15} textAnchor="end">
          Total
        </text>
        <rect x={layout.total.x} y={layout.total.y + 4} width={layout.total.width} height={15} />
        {layout.total.over > 0 && (
          <rect
            className="over"
            x={layout.total.x + layout.total.width - layout.total.over}
            y={layout.total.y + 4}
            width={layout.total.over}
            height={15}
            style={{ fill: `url(#${hatch})` }}
          />
        )}
        <text className="tabular" x={WIDTH} y={layout.total.y + 16} textAnchor="end">
          {money(total, currency)}
        </text>
      </g>
    </svg>
  );
}
