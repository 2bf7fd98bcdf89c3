/** Places the ropes of the life drawing: each thing that wears, on one axis of years. Pure. */
import type { Report, WearReport } from "../../../api/types";
import { years } from "../../../ui/numbers";
import { textOf } from "../../../ui/text";

export const ROW = 34;
const TOP = 26;
const NAME = 168;
/** The least place for the words behind a rope, and what a letter of them takes. */
const FIGURES = 178;
const LETTER = 6.6;
/** Below this a rope's words stand above it. */
const NARROW = 520;
const ROW_STACKED = 46;

export interface Rope {
  wear: WearReport;
  y: number;
  name: string;
  /** Where the rope is whole up to, frays and, by typical figures, parts. */
  sure: number;
  parts: number;
  ends: number;
  /** Whether it goes on beyond the axis. */
  beyond: boolean;
  short: boolean;
  text: string;
}

/** An axis holds no more, whatever is wanted. */
const LONGEST_AXIS_YEARS = 60;

/** Years on an axis that holds what is wanted twice, and what parts soon after it. */
export function ropes(lifetime: Report["lifetime"], width: number) {
  const wanted = lifetime.wanted_years;
  const soon = lifetime.wears.map((wear) => wear.years).filter((years) => years <= 3 * wanted);
  const most = Math.min(
    LONGEST_AXIS_YEARS,
    Math.max(2 * wanted, ...soon.map((years) => years * 1.15), 2),
  );
  const longest = Math.max(0, ...lifetime.wears.map((wear) => ropeText(wear, wanted).length));
  const figures = Math.max(FIGURES, 14 + longest * LETTER);
  const stacked = width < NARROW;
  const row = stacked ? ROW_STACKED : ROW;
  const start = stacked ? 4 : NAME;
  const end = stacked ? width - 44 : width - figures;
  const at = (years: number) => start + (Math.min(years, most) / most) * (end - start);
  const drawn: Rope[] = lifetime.wears.map((wear, index) => {
    // Of what outlasts all that is told it is not known where it ends.
    const until = (years: number) =>
      years >= wear.most_years && years >= wanted ? end : at(years);
    const low = wear.years_p05 ?? wear.years;
    const high = wear.years_p95 ?? wear.years;
    return {
      wear,
      y: TOP + index * row + (stacked ? row - 12 : row / 2),
      name: wear.label,
      sure: until(Math.min(low, wear.years)),
      parts: until(wear.years),
      ends: until(Math.max(high, wear.years)),
      beyond: until(wear.years) === end && wear.years !== most,
      short: wear.years < wanted,
      text: ropeText(wear, wanted),
    };
  });
  const step = most <= 6 ? 1 : most <= 14 ? 2 : most <= 30 ? 5 : 10;
  const ticks = Array.from({ length: Math.floor(most / step) + 1 }, (_, index) => index * step);
  return {
    drawn,
    ticks: ticks.map((years) => ({ years, x: at(years) })),
    wanted: at(wanted),
    stacked,
    start,
    end,
    top: TOP,
    foot: TOP + drawn.length * row,
    height: TOP + drawn.length * row + 22,
  };
}

function ropeText(wear: WearReport, wanted: number): string {
  const most = wear.years < wanted ? undefined : wear.most_years;
  return `${years(wear.years, most)}, ${textOf(wear.how)}`;
}

const DAYS_A_MONTH = 365.25 / 12;

/** How full it is over the months: up to the brim, and what comes after. */
export function fillLine(filling: Report["lifetime"]["filling"], years: number) {
  if (filling.days === null) return null;
  const full = filling.days / DAYS_A_MONTH;
  const span = Math.max(Math.min(years * 12, full * 3), full * 1.4, 1);
  const points: [number, number][] = [[0, 0]];
  if (filling.when_full === "stops") points.push([full, 1], [span, 1]);
  else {
    let month = full;
    points.push([month, 1]);
    while (month < span && points.length < 60) {
      points.push([month, 0.75]);
      month += full * 0.25;
      points.push([
        Math.min(month, span),
        month <= span ? 1 : 0.75 + (0.25 * (span - (month - full * 0.25))) / (full * 0.25),
      ]);
    }
  }
  return { full, span, points };
}
