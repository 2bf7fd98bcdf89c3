/** Sentences of the core, put into the units of whoever reads.
 *
 * A text is words and names, which stay letter for letter, and figures. `formats/display_units.py`
 * does the same for paper and terminal; one table of cases holds both to the same letters. */
import type { Figure, Text } from "../api/types";
import { shownFigure, withSign } from "./displayUnits";

export const NO_BREAK = "\u00a0";
const CURRENCY_SIGNS: Record<string, string> = { EUR: "€" };

/** A text as it is shown; a plain word as it is. */
export function textOf(said: Text | string): string {
  if (typeof said === "string") return said;
  return said.parts.map((part) => (typeof part === "string" ? part : figureText(part))).join("");
}

/** One figure as it is shown. */
export function figureText(figure: Figure): string {
  if (figure.is_money) return moneyText(figure.value, figure.unit, figure.decimals ?? 0);
  const { value, unit, decimals } = shownFigure(figure);
  const number = written(value, decimals);
  return unit && figure.has_unit !== false ? number + NO_BREAK + unit : number;
}

/** `€12.50`, `USD 89`: an amount with so many decimals. */
export function moneyText(amount: number, currency: string, decimals: number): string {
  const number = written(Math.abs(amount), decimals);
  const before = amount < 0 ? "−" : "";
  const sign = CURRENCY_SIGNS[currency];
  return before + (sign ? sign + number : currency + NO_BREAK + number);
}

/** Whether a unit is a currency that has a sign. */
export function hasSign(unit: string): boolean {
  return unit in CURRENCY_SIGNS;
}

/** A number as it is written: with a true minus, and none before a nought. */
export function written(value: number, decimals: number): string {
  const size = fixed(Math.abs(value), decimals);
  const below = value < 0 && Number(size) !== 0;
  return (below ? "−" : "") + withSign(size);
}

const EXACT_DIGITS = 25;
const HALF = "5" + "0".repeat(EXACT_DIGITS - 1);

/** Halves go to the even digit, as the server rounds them; `toFixed` takes them up. */
function fixed(size: number, decimals: number): string {
  const rounded = size.toFixed(decimals);
  const exact = size.toFixed(decimals + EXACT_DIGITS);
  if (!exact.endsWith(HALF) || Number(rounded.slice(-1)) % 2 === 0) return rounded;
  return (size - 10 ** -decimals / 2).toFixed(decimals);
}
