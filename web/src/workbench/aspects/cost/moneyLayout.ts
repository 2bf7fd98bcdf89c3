/** The money as steps towards the budget: each part begins where the one before ended. Pure. */
import { scaleLinear } from "d3-scale";

import type { Report } from "../../../api/types";

export const WIDTH = 640;
const ROW = 26;
const START = 176;
const END = WIDTH - 92;

export interface MoneyStep {
  line: string;
  name: string;
  x: number;
  width: number;
  y: number;
  toPay: string;
  /** What of it lies beyond the budget. [px] */
  over: number;
}

export interface MoneyLayout {
  steps: MoneyStep[];
  total: { y: number; x: number; width: number; over: number };
  budget: number | null;
  height: number;
}

/** What costs something, the most first; null where nothing does. */
export function moneyLayout(report: Report): MoneyLayout | null {
  const { cost } = report;
  const paid = report.lines
    .map((line, index) => ({ line, toPay: cost.lines[index]?.to_pay ?? null }))
    .filter((entry): entry is typeof entry & { toPay: string } => Number(entry.toPay ?? 0) > 0)
    .sort((a, b) => Number(b.toPay) - Number(a.toPay));
  if (paid.length === 0) return null;
  const budget = cost.budget === null ? null : Number(cost.budget);
  const total = Number(cost.total);
  const at = scaleLinear([0, Math.max(total, budget ?? 0)], [START, END]);
  const beyond = (from: number, to: number) =>
    budget === null || to <= budget ? 0 : at(to) - at(Math.max(from, budget));
  let spent = 0;
  const steps = paid.map(({ line, toPay }, index) => {
    const from = spent;
    spent += Number(toPay);
    return {
      line: line.id,
      name: line.quantity > 1 ? `${line.quantity} × ${line.name}` : line.name,
      x: round(at(from)),
      width: round(Math.max(1.5, at(spent) - at(from))),
      y: index * ROW,
      toPay,
      over: round(beyond(from, spent)),
    };
  });
  return {
    steps,
    total: {
      y: steps.length * ROW + 6,
      x: START,
      width: round(at(total) - START),
      over: round(beyond(0, total)),
    },
    budget: budget === null ? null : round(at(budget)),
    height: (steps.length + 1) * ROW + 24,
  };
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}
