/** The text of a plan's details, and what of it is sent: only what was changed. Pure. */
import { FIELDS } from "../api/labels";
import type { Change, PlanView } from "../api/types";
import { withSign } from "../ui/displayUnits";
import { textOf, valuesOf, type FieldText } from "../ui/fieldText";
import { readNumber } from "../ui/readNumber";

type Plan = PlanView["plan"];
type SetFields = Extract<Change, { op: "set" }>["fields"];

const { plan, place, settings } = FIELDS;
export const ROWS = {
  name: plan.name,
  purpose: plan.purpose,
  "place.name": place.name,
  status: plan.status,
  copies: plan.copies,
  "place.ambient_min_c": place.ambient_min_c,
  "place.ambient_max_c": place.ambient_max_c,
  "place.altitude_m": place.altitude_m,
  "place.mounting": place.mounting,
  "place.sun_w_m2": place.sun_w_m2,
  "place.within_reach_of": place.within_reach_of,
  "place.power": place.power,
  "place.latitude_deg": place.latitude_deg,
  "place.network": place.network,
  "place.dust": place.dust,
  "place.noise_max_dba": place.noise_max_dba,
  currency: plan.currency,
  rates: plan.rates,
  budget: plan.budget,
  "place.wet": place.wet,
  "settings.read_only_root": settings.read_only_root,
  "settings.lift_port_limit": settings.lift_port_limit,
  "settings.push_slot": settings.push_slot,
};
type Name = keyof typeof ROWS;
const NAMES = Object.keys(ROWS) as Name[];
/** Lines of their own, a grid, and what is ticked. */
export const WIDE = NAMES.slice(0, 3);
export const CHECKS = NAMES.filter((name) => ROWS[name].control === "check");
export const GRID = NAMES.slice(3).filter((name) => !CHECKS.includes(name));

export type DetailsText = FieldText<Name>;

export function detailsOf(stored: Plan): DetailsText {
  const flat: Partial<Record<Name, unknown>> = {};
  for (const name of NAMES) {
    const [part, inside] = name.split(".") as [keyof Plan, string | undefined];
    const value: unknown = stored[part];
    flat[name] = inside ? (value as Record<string, unknown>)[inside] : value;
  }
  return textOf(ROWS, NAMES, { ...flat, rates: ratesText(stored.rates) });
}

/** `USD 0.92, GBP 1.17`: what one of another currency costs. */
function ratesText(rates: Record<string, string>): string {
  return Object.entries(rates)
    .map(([currency, rate]) => `${currency} ${withSign(String(Number(rate)))}`)
    .join("; ");
}

const RATE = /^([A-Z]{3})\s*=?\s*([0-9]+(?:[.,][0-9]{1,6})?)$/;

/** Rates as typed, or null where one cannot be read. */
function ratesFrom(text: string): Record<string, string> | null {
  const rates: Record<string, string> = {};
  for (const one of text.split(/;|,\s|\n/).map((item) => item.trim())) {
    if (one === "") continue;
    const [, currency, rate] = RATE.exec(one.toUpperCase()) ?? [];
    if (!currency || !rate || !(readNumber(rate) > 0)) return null;
    rates[currency] = rate.replace(",", ".");
  }
  return rates;
}

/** The fields that were changed, as they are sent; or what is wrong, in a sentence. */
export function fieldsOf(
  text: DetailsText,
  changed: Name[],
): { fields: SetFields } | { wrong: string } {
  const read = valuesOf(
    ROWS,
    changed.filter((name) => name !== "rates"),
    text,
  );
  if ("wrong" in read) return read;
  const values: Partial<Record<Name, unknown>> = read.values;
  if (changed.includes("currency")) values.currency = String(values.currency).toUpperCase();
  if (changed.includes("rates")) {
    values.rates = ratesFrom(String(text.rates));
    if (values.rates === null)
      return {
        wrong: `Exchange rates: enter them as “${plan.rates.example}” (got ${text.rates}).`,
      };
  }
  const fields: Record<string, Record<string, unknown>> = {};
  for (const [name, value] of Object.entries(values)) {
    const [part = "", inside] = name.split(".");
    if (inside) fields[part] = { ...fields[part], [inside]: value };
    else fields[part] = value as Record<string, unknown>;
  }
  return { fields: fields };
}

/** "name, highest ambient and budget". */
export function listed(words: string[]): string {
  if (words.length < 2) return words.join("");
  return `${words.slice(0, -1).join(", ")} and ${words[words.length - 1]}`;
}
