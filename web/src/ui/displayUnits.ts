/** In which units and with which decimal sign figures are shown, and how they are typed.
 *
 * The server speaks °C and mm with a point; the page shows what is preferred. Kept in this browser
 * too, so that nothing changes under the eye at the start. */
import type { Figure } from "../api/types";

export interface Shown {
  temperature: "C" | "F";
  length: "mm" | "in";
  decimal: "point" | "comma";
}

export const MM_AN_INCH = 25.4;
const KEY = "cobblewort-shown";
export const PLAIN: Shown = { temperature: "C", length: "mm", decimal: "point" };

let shown = kept();
const followers = new Set<() => void>();

function kept(): Shown {
  const [temperature, length, decimal] = (localStorage.getItem(KEY) ?? "").split(" ");
  return {
    temperature: temperature === "F" ? "F" : "C",
    length: length === "in" ? "in" : "mm",
    decimal: decimal === "comma" ? "comma" : "point",
  };
}

function take(next: Shown) {
  if (keyOf(next) === keyOf(shown)) return;
  shown = next;
  for (const changed of followers) changed();
}

export function setShown({ temperature, length, decimal }: Shown) {
  take({ temperature, length, decimal });
  localStorage.setItem(KEY, keyOf(shown));
}

/** Tells of other units, whichever tab they are chosen in. */
export function followShown(changed: () => void): () => void {
  followers.add(changed);
  return () => followers.delete(changed);
}

window.addEventListener("storage", (event) => {
  if (event.key === KEY) take(kept());
});

/** What is shown now: what was drawn with it is read with it, whatever another tab chooses since. */
export function shownNow(): Shown {
  return shown;
}

function keyOf({ temperature, length, decimal }: Shown): string {
  return `${temperature} ${length} ${decimal}`;
}

/** A figure of the server's in the units that are shown. */
export function shownFigure(figure: Figure): { value: number; unit: string; decimals: number } {
  const { value, unit, decimals = 0 } = figure;
  const as = pathOf(unit);
  return {
    value: value * as.scale + (figure.is_difference ? 0 : as.offset),
    unit: as.unit,
    // A tenth of a millimetre is four thousandths of an inch: what was told apart stays so.
    decimals: as.unit === "in" && unit === "mm" ? decimals + 2 : decimals,
  };
}

/** How a unit of the server is shown: times `scale`, and `offset` more where it is no difference. */
interface Way {
  unit: string;
  scale: number;
  offset: number;
}

function pathOf(unit: string, at = shown): Way {
  if (at.temperature === "F" && (unit === "°C" || unit === "K"))
    return { unit: "°F", scale: 1.8, offset: unit === "K" ? 0 : 32 };
  if (at.length === "in" && unit === "mm") return { unit: "in", scale: 1 / MM_AN_INCH, offset: 0 };
  return { unit, scale: 1, offset: 0 };
}

/** The unit that is shown for one of the server's. */
export function shownUnit(unit: string): string {
  return pathOf(unit).unit;
}

export function shownValue(value: number, unit: string): number {
  const way = pathOf(unit);
  return value * way.scale + way.offset;
}

/** Back from a figure as it is shown. */
export function serverValue(value: number, unit: string, at = shown): number {
  const way = pathOf(unit, at);
  return (value - way.offset) / way.scale;
}

/** A difference, such as what is spare: 10 °C of it are 18 °F. */
export function shownDifference(value: number, unit: string): number {
  return value * pathOf(unit).scale;
}

/** A text of digits with the decimal sign that is wanted. */
export function withSign(text: string): string {
  return shown.decimal === "comma" ? text.replace(".", ",") : text;
}

const PLAIN_NUMBER = /^\s*[-+−]?\d*(?:[.,]\d*)?\s*$/;

/** What a field shows for what its form holds, a number of the server's unit or anything typed. */
export function toField(held: string, unit: string): string {
  const number = Number(held);
  if (held.trim() === "" || !PLAIN_NUMBER.test(held) || Number.isNaN(number)) return held;
  const way = pathOf(unit);
  if (way.unit === unit) return withSign(held);
  return withSign(String(Number((number * way.scale + way.offset).toPrecision(5))));
}

/** What a form holds for what was typed: plain numbers are meant in the unit that is shown. */
export function fromField(typed: string, unit: string, at = shown): string {
  const way = pathOf(unit, at);
  if (way.unit === unit || !PLAIN_NUMBER.test(typed)) return typed;
  const number = Number(typed.trim().replace(",", ".").replace("−", "-"));
  if (typed.trim() === "" || Number.isNaN(number)) return typed;
  return String(Number(serverValue(number, unit, at).toPrecision(7)));
}

/** What is read for a figure that is no plain number: `3/8` is meant in the unit that is shown. */
export function asTyped(typed: string, unit: string, at = shown): string {
  const way = pathOf(unit, at);
  return way.unit === unit || /[a-z°"']/i.test(typed) ? typed : `${typed} ${way.unit}`;
}
