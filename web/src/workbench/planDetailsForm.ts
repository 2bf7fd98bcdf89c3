/** The text of a plan's details, and what of it is sent: only what was changed. Pure. */
import type { Change, PlanView } from "../api/types";
import { bare, figure } from "../ui/numbers";
import { readNumber } from "../ui/readNumber";
import { withSign } from "../ui/displayUnits";
import { PLACE_FIELDS, PLAN_FIELDS, SETTING_FIELDS } from "../api/labels";

type Plan = PlanView["plan"];
type SetFields = Extract<Change, { op: "set" }>["fields"];

export function detailsOf(plan: Plan) {
  return {
    name: plan.name,
    status: plan.status as string,
    purpose: plan.purpose,
    placeName: plan.place.name,
    coldest: String(plan.place.ambient_min_c),
    hottest: String(plan.place.ambient_max_c),
    altitude: String(plan.place.altitude_m),
    mounting: plan.place.mounting as string,
    sun: String(plan.place.sun_w_m2),
    touchedBy: plan.place.within_reach_of as string,
    power: plan.place.power as string,
    wet: plan.place.wet,
    dust: plan.place.dust as string,
    network: plan.place.network as string,
    noise: plan.place.noise_max_dba == null ? "" : String(plan.place.noise_max_dba),
    budget: plan.budget ?? "",
    currency: plan.currency,
    rates: ratesText(plan.rates),
    copies: String(plan.copies),
    lift: plan.settings.lift_port_limit,
    readOnly: plan.settings.read_only_root,
    push: plan.settings.push_slot,
  };
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

export type DetailsText = ReturnType<typeof detailsOf>;
type Key = keyof DetailsText;

/** What each field is called, from the table of labels. */
export const LABELS: Record<Key, string> = {
  name: PLAN_FIELDS.name[0],
  status: PLAN_FIELDS.status[0],
  purpose: PLAN_FIELDS.purpose[0],
  placeName: PLACE_FIELDS.name[0],
  coldest: PLACE_FIELDS.ambient_min_c[0],
  hottest: PLACE_FIELDS.ambient_max_c[0],
  altitude: PLACE_FIELDS.altitude_m[0],
  mounting: PLACE_FIELDS.mounting[0],
  sun: PLACE_FIELDS.sun_w_m2[0],
  touchedBy: PLACE_FIELDS.within_reach_of[0],
  power: PLACE_FIELDS.power[0],
  wet: PLACE_FIELDS.wet[0],
  dust: PLACE_FIELDS.dust[0],
  network: PLACE_FIELDS.network[0],
  noise: PLACE_FIELDS.noise_max_dba[0],
  budget: PLAN_FIELDS.budget[0],
  currency: PLAN_FIELDS.currency[0],
  rates: PLAN_FIELDS.rates[0],
  copies: PLAN_FIELDS.copies[0],
  lift: SETTING_FIELDS.lift_port_limit[0],
  readOnly: SETTING_FIELDS.read_only_root[0],
  push: SETTING_FIELDS.push_slot[0],
};

export const UNITS: Partial<Record<Key, string>> = {
  coldest: "°C",
  hottest: "°C",
  altitude: "m",
  sun: "W/m²",
  noise: "dB(A)",
};

const PLACE: Partial<Record<Key, string>> = {
  placeName: "name",
  coldest: "ambient_min_c",
  hottest: "ambient_max_c",
  altitude: "altitude_m",
  mounting: "mounting",
  sun: "sun_w_m2",
  touchedBy: "within_reach_of",
  power: "power",
  wet: "wet",
  dust: "dust",
  network: "network",
  noise: "noise_max_dba",
};
const SETTINGS: Partial<Record<Key, string>> = {
  lift: "lift_port_limit",
  readOnly: "read_only_root",
  push: "push_slot",
};
const NUMBERS = new Set<Key>(["coldest", "hottest", "altitude", "sun"]);

/** The fields that were changed, as they are sent; or what is wrong, in a sentence. */
export function fieldsOf(
  text: DetailsText,
  changed: Key[],
): { fields: SetFields } | { wrong: string } {
  const wrong = wrongIn(text);
  if (wrong) return { wrong };
  const fields: Record<string, unknown> = {};
  const place: Record<string, unknown> = {};
  const settings: Record<string, unknown> = {};
  for (const key of changed) {
    const inPlace = PLACE[key];
    const inSettings = SETTINGS[key];
    if (inPlace) place[inPlace] = valueOf(text, key);
    else if (inSettings) settings[inSettings] = text[key];
    else fields[key] = valueOf(text, key);
  }
  if (Object.keys(place).length > 0) fields.place = place;
  if (Object.keys(settings).length > 0) fields.settings = settings;
  return { fields };
}

function valueOf(text: DetailsText, key: Key): unknown {
  if (NUMBERS.has(key) || key === "copies") return readNumber(String(text[key]));
  if (key === "noise") return text.noise.trim() === "" ? null : readNumber(text.noise);
  if (key === "budget")
    return text.budget.trim() === "" ? null : readNumber(text.budget).toFixed(2);
  if (key === "currency") return text.currency.trim().toUpperCase();
  if (key === "rates") return ratesFrom(text.rates);
  return text[key];
}

function wrongIn(text: DetailsText): string {
  const coldest = readNumber(text.coldest);
  const hottest = readNumber(text.hottest);
  const altitude = readNumber(text.altitude);
  const sun = readNumber(text.sun);
  const budget = text.budget.trim() === "" ? null : readNumber(text.budget);
  const copies = readNumber(text.copies);
  const noise = text.noise.trim() === "" ? null : readNumber(text.noise);
  if ([coldest, hottest, altitude, sun].some(Number.isNaN) || Number.isNaN(budget))
    return "Enter temperatures, altitude, sun and budget as numbers, for example 28 or 12.50.";
  if (coldest > hottest)
    return `The lowest ambient must not be above the highest (got ${bare(coldest, "°C")} and ${figure(hottest, "°C")}).`;
  if (noise !== null && !(noise > 0 && noise <= 140))
    return `Enter a noise limit above 0 and up to 140 dB(A), or leave it empty (got ${text.noise}).`;
  if (!/^\s*[a-z]{3}\s*$/i.test(text.currency))
    return `Enter a currency code of three letters, for example EUR (got ${text.currency || "nothing"}).`;
  if (ratesFrom(text.rates) === null)
    return `Enter exchange rates in the form “USD 0.92; GBP 1.17” (got ${text.rates}).`;
  if (!Number.isInteger(copies) || copies < 1 || copies > 100)
    return `Enter a whole number of copies from 1 to 100 (got ${text.copies}).`;
  if (budget !== null && budget < 0) return `Enter a budget of 0 or more (got ${budget}).`;
  return "";
}

/** "name, highest ambient and budget". */
export function listed(words: string[]): string {
  if (words.length < 2) return words.join("");
  return `${words.slice(0, -1).join(", ")} and ${words[words.length - 1]}`;
}
