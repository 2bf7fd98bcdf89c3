/** Figures as the page shows them: the one place where numbers become text. */
import type { FamilyReport, Margin, Severity } from "../api/types";
import { SEVERITIES } from "../api/labels";
import {
  MM_AN_INCH,
  shownDifference,
  shownUnit,
  shownValue,
  toField,
  withSign,
} from "./displayUnits";
import { hasSign, moneyText, NO_BREAK, textOf, written } from "./text";

const DIGITS: Record<string, number> = {
  A: 2,
  V: 2,
  W: 1,
  mm: 1,
  "°C": 0,
  "°F": 0,
  K: 0,
  "dB(A)": 0,
  Wh: 0,
};
/** Units of amounts that span decades: two digits of meaning, more only where they stand anyway. */
const WIDE = new Set(["MB/s", "min", "years", "GB", "h", "TiB", "months"]);

export function figure(value: number, unit: string): string {
  if (hasSign(unit)) return money(value, unit);
  return withUnit(shownValue(value, unit), shownUnit(unit));
}

/** What lies between two figures: 10 °C of it are 18 °F. */
export function difference(value: number, unit: string): string {
  if (hasSign(unit)) return money(value, unit);
  return withUnit(shownDifference(value, unit), shownUnit(unit));
}

/** A figure without its unit, where that stands elsewhere. */
export function bare(value: number, unit: string): string {
  const text = figure(value, unit);
  return text.slice(0, text.length - shownUnit(unit).length).trim();
}

function withUnit(value: number, unit: string): string {
  const text = written(value, digitsOf(value, unit));
  return unit ? text + NO_BREAK + unit : text;
}

function digitsOf(value: number, unit: string): number {
  if (unit === "in") return Math.abs(value) >= 100 / MM_AN_INCH ? 2 : 3;
  if (!WIDE.has(unit)) return DIGITS[unit] ?? 2;
  const size = Math.abs(value);
  return size >= 9.95 ? 0 : size >= 0.095 || size === 0 ? 1 : 2;
}

/** A label at the head of a sentence. */ export function headed(label: string): string {
  return label.charAt(0).toUpperCase() + label.slice(1);
} /** A time, in the unit that people would tell it in. */
export function duration(minutes: number): string {
  if (minutes >= 3 * 24 * 60) return trimmed(figure(minutes / 1440, "")) + `${NO_BREAK}days`;
  if (minutes >= 120) return figure(minutes / 60, "h");
  if (minutes < 1) return `${Math.max(1, Math.round(minutes * 60))}${NO_BREAK}s`;
  return figure(minutes, "min");
}

/** A figure with as many digits as it was stated with. */
export function stated(value: number, unit: string): string {
  return `${toField(String(value), unit)}${NO_BREAK}${shownUnit(unit)}`.trim();
}

/** `120 × 80 mm`: sides of something. */
export function sides(lengths: number[], unit: string): string {
  return `${lengths.map((length) => trimmed(bare(length, unit))).join(`${NO_BREAK}× `)}${NO_BREAK}${shownUnit(unit)}`;
}

/** Without noughts after the decimal sign. */
export function trimmed(text: string): string {
  return text.replace(/[.,]0+$/, "").replace(/([.,]\d*[1-9])0+$/, "$1");
}

/** Nobody answers for a longer life; what lasts longer comes as this from the core. */
export const ANSWERED_YEARS = 10;

/** The life of something: `4.6 years`, `12 days`; of `most` nobody tells how much longer. */
export function years(lifetime: number, most = Infinity): string {
  if (lifetime >= most) return `${most}${NO_BREAK}years and more`;
  return lifetime < 0.1
    ? `${Math.round(lifetime * 365.25)}${NO_BREAK}days`
    : figure(lifetime, "years");
}

/** A capacity as labels count it. */
export function capacity(gb: number): string {
  const [amount, unit] = gb >= 1000 ? [gb / 1000, "TB"] : gb >= 1 ? [gb, "GB"] : [gb * 1000, "MB"];
  return gb === 0
    ? `0${NO_BREAK}GB`
    : `${withSign(String(Number(amount.toPrecision(3))))}${NO_BREAK}${unit}`;
}

/** A figure in a working, to four significant digits, so that the sum can be followed. */
export function precise(value: number, unit: string): string {
  if (hasSign(unit)) return money(value, unit);
  const size = Math.abs(value);
  const digits = size === 0 ? 0 : Math.min(5, Math.max(0, 3 - Math.floor(Math.log10(size))));
  return minus(`${withSign(value.toFixed(digits))}${NO_BREAK}${unit}`.trim());
}

export function money(amount: number | string, currency: string): string {
  const value = Number(amount);
  return moneyText(value, currency, value.toFixed(2).endsWith(".00") ? 0 : 2);
}

/** A signed change, `+0.20 A`; empty where it rounds to nothing. */
export function change(value: number | null | undefined, unit: string): string {
  if (value === null || value === undefined) return "";
  const amount = Math.abs(shownDifference(value, unit));
  const digits = hasSign(unit) ? 2 : digitsOf(amount, shownUnit(unit));
  if (Number(amount.toFixed(digits)) === 0) return "";
  const size = difference(Math.abs(value), unit);
  return `${value < 0 ? "−" : "+"}${size}`;
}

/** What is spare or short, as it stands beside a ruler: `9.3 mm`, `0.70 A short`. */
export function spareText(spare: number, unit: string): string {
  const isMoney = hasSign(unit);
  // From a hundred on nobody looks at cents beside a ruler.
  const amount = Math.abs(spare);
  const size = difference(isMoney && amount >= 100 ? Math.round(amount) : amount, unit);
  if (isMoney) return spare < 0 ? `${size} over` : `${size} left`;
  const short = size.replace("years", "y");
  return spare < 0 ? `${short} short` : short;
}

export function familyFigure(family: FamilyReport): string {
  if (family.spare === null) return severityWord(family.severity);
  return spareText(family.spare, family.unit);
}

/** A figure is told in the tone of its bar, a mere word in that of its mark. */
export function figureTone(family: FamilyReport): Severity {
  return family.spare === null ? family.severity : family.planned;
}

/** What the hollow tick of a ruler stands for, where it lies past the limit. */
export function worstCaseText(family: FamilyReport): string {
  const { worst_case } = family;
  if (!worst_case || worst_case.spare >= 0) return "";
  const short = spareText(worst_case.spare, worst_case.unit);
  return `Worst case: ${textOf(worst_case.label)}, ${short}`;
}

/** Money, or that nobody knows how much. */
export function price(amount: string | null | undefined, currency: string): string {
  return amount ? money(amount, currency) : "not known";
}

export function bandText(margin: Margin): string {
  if (margin.spare_p05 === null || margin.spare_p95 === null) return "";
  if (margin.spare_p05 === margin.spare_p95) return "";
  return `${difference(margin.spare_p05, margin.unit)} to ${difference(margin.spare_p95, margin.unit)}`;
}

export function percent(share: number): string {
  return `${written(share * 100, 0)}${NO_BREAK}%`;
}

export function severityWord(severity: string): string {
  return severity in SEVERITIES ? SEVERITIES[severity as Severity] : severity;
}

function minus(text: string): string {
  return text.replace("-", "−");
}
