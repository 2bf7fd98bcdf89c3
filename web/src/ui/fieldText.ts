/** Between the fields of a document and what is typed for them, by the rows of the table. Pure. */
import { readNumber } from "./readNumber";

/** A field as `core/plans/fields.py` describes it, bounds included. */
export interface FieldRow {
  label: string;
  unit: string;
  control: "text" | "lines" | "number" | "money" | "choice" | "check" | "list";
  choices: Readonly<Record<string, string>>;
  named: Readonly<Record<string, string>>;
  empty: string;
  example: string;
  hint: string;
  is_optional: boolean;
  whole: boolean;
  least: number | null;
  above: number | null;
  most: number | null;
  longest: number | null;
}

export type FieldRows<N extends string> = Readonly<Record<N, FieldRow>>;
/** Checks are true or false, all else is text. */
export type FieldText<N extends string> = Record<N, string | boolean>;

/** What stands in the fields of a document. */
export function textOf<N extends string>(
  rows: FieldRows<N>,
  names: readonly N[],
  document: Partial<Record<N, unknown>>,
): FieldText<N> {
  const told = names.map((name) => [name, asText(rows[name], document[name])]);
  return Object.fromEntries(told) as FieldText<N>;
}

function asText(row: FieldRow, value: unknown): string | boolean {
  if (row.control === "check") return value === true;
  if (value === null || value === undefined) return "";
  return Array.isArray(value) ? value.join(", ") : `${value as string | number}`;
}

/** The values that were typed, as they are sent; or the first that is wrong, in a sentence. */
export function valuesOf<N extends string>(
  rows: FieldRows<N>,
  names: readonly N[],
  text: FieldText<N>,
): { values: Partial<Record<N, unknown>> } | { wrong: string } {
  const values: Partial<Record<N, unknown>> = {};
  for (const name of names) {
    const wrong = wrongIn(rows[name], text[name]);
    if (wrong) return { wrong: `${rows[name].label}: ${wrong}` };
    values[name] = valueOf(rows[name], text[name]);
  }
  return { values };
}

function valueOf(row: FieldRow, typed: string | boolean): unknown {
  if (typeof typed === "boolean") return typed;
  const text = typed.trim();
  if (row.control === "list")
    return text
      .split(",")
      .map((one) => one.trim())
      .filter(Boolean);
  if (text === "" && row.is_optional) return null;
  if (text === "" && row.empty) return undefined; // as the server has it
  if (row.control === "money") return readNumber(text).toFixed(2);
  return isFigure(row) ? readNumber(text) : text;
}

const isFigure = (row: FieldRow) =>
  row.control === "number" || (row.control === "choice" && row.whole);

/** What to type instead, without the name of the field; empty where nothing is wrong. */
export function wrongIn(row: FieldRow, typed: string | boolean): string {
  if (typeof typed === "boolean" || row.control === "list" || row.control === "lines") return "";
  const text = typed.trim();
  if (text === "" && (row.is_optional || row.empty)) return "";
  const isNumber = isFigure(row) || row.control === "money";
  const example = row.example && `, for example ${isNumber ? row.example : `“${row.example}”`}`;
  if (text === "" && row.control === "choice") return "choose one.";
  if (text === "" && !isNumber) return `enter one${example}.`;
  if (!isNumber || isTaken(row, readNumber(text))) return "";
  const leave = row.is_optional ? ", or leave it empty" : "";
  const got = text === "" ? "" : ` (got ${text})`;
  return `enter a ${row.whole ? "whole " : ""}number${boundsOf(row)}${example}${leave}${got}.`;
}

function isTaken({ whole, above, least, most }: FieldRow, value: number): boolean {
  return (
    !Number.isNaN(value) &&
    (!whole || Number.isInteger(value)) &&
    (above === null || value > above) &&
    (least === null || value >= least) &&
    (most === null || value <= most)
  );
}

const WORTH_TELLING = 10_000;

/** ` from 1 to 100`, ` above 0 and up to 140 dB(A)`; a limit that nobody meets is not told. */
function boundsOf(row: FieldRow): string {
  const { least, above, unit } = row;
  const most = row.most === null || row.most > WORTH_TELLING ? null : row.most;
  const withUnit = (bound: number) => `${bound}${unit && ` ${unit}`}`;
  if (least !== null && most !== null) return ` from ${least} to ${withUnit(most)}`;
  const from = above !== null ? ` above ${above}` : least !== null ? ` of ${least} or more` : "";
  const to = most === null ? "" : ` up to ${withUnit(most)}`;
  return from && to ? `${from} and${to}` : from + to;
}

/** An id that nothing has: of the name, or the `spare` word where the name has no letters. */
export function freeId(
  name: string,
  taken: ReadonlySet<string>,
  spare: string,
  from: 1 | 2 = 2,
): string {
  const stem = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 40);
  const first = stem || spare;
  if (from === 2 && !taken.has(first)) return first;
  let number: number = from;
  while (taken.has(`${first}-${number}`)) number += 1;
  return `${first}-${number}`;
}
