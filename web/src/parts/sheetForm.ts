/** The sheet of a part as a form: what is typed, and what of it has changed. */
import type { PartEdit, PartSheet, SheetFigure } from "../api/types";
import { readNumber } from "../ui/readNumber";
import { toField } from "../ui/displayUnits";
import { BASES } from "../api/labels";

export type InputBasis = "measured" | "datasheet" | "estimate";

export interface FigureText {
  text: string;
  basis: InputBasis;
}

export interface SheetText {
  maker: string;
  model: string;
  summary: string;
  price: string;
  currency: string;
  figures: Record<string, FigureText>;
}

export const INPUT_BASES: [InputBasis, string][] = [
  ["measured", "measured, ±3 %"],
  ["datasheet", "datasheet"],
  ["estimate", "estimate, ±40 %"],
];

const isInputBasis = (basis: string | null): basis is InputBasis =>
  basis === "measured" || basis === "datasheet" || basis === "estimate";

/** Only what the part states itself stands in its field; the rest is left to its class. */
export function textOf(sheet: PartSheet): SheetText {
  const figures = sheet.figures.map((entry): [string, FigureText] => [
    entry.path,
    {
      text: entry.own && entry.nominal !== null ? String(entry.nominal) : "",
      basis: isInputBasis(entry.basis) ? entry.basis : "datasheet",
    },
  ]);
  return {
    maker: sheet.maker,
    model: sheet.model,
    summary: sheet.summary,
    price: sheet.price ?? "",
    currency: sheet.currency,
    figures: Object.fromEntries(figures),
  };
}

/** The changes to send, or what is wrong with what was typed, by path. */
export function editOf(
  sheet: PartSheet,
  text: SheetText,
): { edit: PartEdit } | { wrong: Record<string, string> } {
  const wrong: Record<string, string> = {};
  const before = textOf(sheet);
  const figures: NonNullable<PartEdit["figures"]> = {};
  for (const [path, { text: typed, basis }] of Object.entries(text.figures)) {
    const old = before.figures[path];
    if (old?.text === typed.trim() && (old.basis === basis || !typed.trim())) continue;
    if (!typed.trim()) {
      figures[path] = null;
      continue;
    }
    const nominal = readNumber(typed);
    if (Number.isNaN(nominal)) wrong[path] = "Enter a number, for example 2.5.";
    else figures[path] = { nominal, basis };
  }
  const price = text.price.trim() === "" ? null : readNumber(text.price);
  if (price !== null && !(price >= 0))
    wrong["price"] = "Enter the price as a number, for example 12.50.";
  if (!/^\s*[a-z]{3}\s*$/i.test(text.currency))
    wrong["currency"] = "Enter a currency code of three letters, for example EUR.";
  if (!text.model.trim()) wrong["model"] = "Enter a name.";
  if (Object.keys(wrong).length > 0) return { wrong };
  const edit: PartEdit = { figures };
  for (const name of ["maker", "model", "summary"] as const)
    if (text[name] !== before[name]) edit[name] = text[name];
  if (text.price !== before.price) edit.price = price === null ? null : price.toFixed(2);
  if (text.currency !== before.currency) edit.currency = text.currency.trim().toUpperCase();
  return { edit };
}

const FIGURE = "figure ";

/** The text as one flat record, so that each field can be brought together with what is stored. */
export function flat(text: SheetText): Record<string, string | FigureText> {
  const { figures, ...names } = text;
  const rows = Object.entries(figures).map(([path, entry]) => [`${FIGURE}${path}`, entry] as const);
  return { ...names, ...Object.fromEntries(rows) };
}

export function unflat(fields: Record<string, string | FigureText>): SheetText {
  const name = (key: string) => {
    const value = fields[key];
    return typeof value === "string" ? value : "";
  };
  const figures: Record<string, FigureText> = {};
  for (const [key, value] of Object.entries(fields))
    if (typeof value !== "string") figures[key.slice(FIGURE.length)] = value;
  return {
    maker: name("maker"),
    model: name("model"),
    summary: name("summary"),
    price: name("price"),
    currency: name("currency"),
    figures,
  };
}

/** What each field of the flat record is called. */
export function rowsOf(sheet: PartSheet): Record<string, { label: string; unit?: string }> {
  const figures = sheet.figures.map((entry) => [`${FIGURE}${entry.path}`, { label: entry.label }]);
  return {
    maker: { label: "Maker" },
    model: { label: "Name" },
    summary: { label: "Description" },
    price: { label: "Price" },
    currency: { label: "Currency" },
    ...(Object.fromEntries(figures) as Record<string, { label: string }>),
  };
}

/** What a figure falls back to, in words for its empty field. */
export function fallback(entry: SheetFigure): string {
  return entry.class_nominal === null
    ? "not known"
    : `typical: ${toField(String(entry.class_nominal), entry.unit)}`;
}

export function basisWords(entry: SheetFigure): string {
  if (entry.nominal === null) return "";
  return BASES[entry.basis ?? "typical"];
}

/** Figures under their headings, in the order of the sheet. */
export function groupsOf(figures: SheetFigure[]): [string, SheetFigure[]][] {
  const groups = new Map<string, SheetFigure[]>();
  for (const entry of figures) groups.set(entry.group, [...(groups.get(entry.group) ?? []), entry]);
  return [...groups];
}

/** Problems that the server names by place, for the fields that they belong to. */
export function byPath(
  problems: { place: string; text: string }[],
  sheet: PartSheet,
): { fields: Record<string, string>; rest: string[] } {
  const fields: Record<string, string> = {};
  const rest: string[] = [];
  for (const { place, text } of problems) {
    const inner = place.replace(/^figures\./, "").replace(/^body\./, "");
    const owner = sheet.figures.find(
      (entry) => inner === entry.path || inner.startsWith(`${entry.path}.`),
    );
    if (owner) fields[owner.path] = text;
    else if (
      inner === "price" ||
      inner === "currency" ||
      inner === "model" ||
      inner === "maker" ||
      inner === "summary"
    )
      fields[inner] = text;
    else rest.push(sentence(inner, text, sheet));
  }
  return { fields, rest };
}

/** What concerns several fields together is a sentence by itself; another place is named. */
function sentence(place: string, text: string, sheet: PartSheet): string {
  const group = sheet.figures.some((entry) => entry.path.startsWith(`${place}.`));
  const told = group || place === "" ? text : `${place}: ${text}`;
  return `${told.charAt(0).toUpperCase()}${told.slice(1)}.`.replace(/\.\.$/, ".");
}
