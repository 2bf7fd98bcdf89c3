/** The text of a plan's details, and what of it is sent: only what was changed. Pure. */
import type { Change, PlanView } from "../api/types";
import { bare, figure } from "../ui/numbers";
import { readNumber } from "../ui/readNumber";
import { withSign } from "../ui/displayUnits";

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

export const LABELS: Record<Key, string> = {
  name: "Name",
  status: "Status",
  purpose: "What it must do",
  placeName: "Where it will live",
  coldest: "Coldest day",
  hottest: "Hottest day",
  altitude: "Height above the sea",
  mounting: "How it stands",
  sun: "Sun on it",
  touchedBy: "Who can touch it",
  power: "What feeds it there",
  wet: "Water reaches it",
  dust: "Dust in the air",
  network: "Network there",
  noise: "May be heard",
  budget: "Budget",
  currency: "Currency",
  rates: "What one of another currency costs",
  copies: "How many are to be built",
  lift: "The lifted port limit",
  readOnly: "The read-only root",
  push: "The faster drive slot",
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
    return "Temperatures, height, sun and budget must be numbers, such as 28 or 12.50.";
  if (coldest > hottest)
    return `The coldest day must not be warmer than the hottest (got ${bare(coldest, "°C")} and ${figure(hottest, "°C")}).`;
  if (noise !== null && !(noise > 0 && noise <= 140))
    return `The most that may be heard must be a number above 0 and up to 140 dB(A), or stay empty (got ${text.noise}).`;
  if (!/^\s*[a-z]{3}\s*$/i.test(text.currency))
    return `The currency must be three letters, such as EUR (got ${text.currency || "nothing"}).`;
  if (ratesFrom(text.rates) === null)
    return `What one of another currency costs must be such as “USD 0.92; GBP 1.17” (got ${text.rates}).`;
  if (!Number.isInteger(copies) || copies < 1 || copies > 100)
    return `How many are to be built must be a whole number from 1 to 100 (got ${text.copies}).`;
  if (budget !== null && budget < 0) return `The budget must be zero or more (got ${budget}).`;
  return "";
}

/** "name, hottest day and budget". */
export function listed(words: string[]): string {
  if (words.length < 2) return words.join("");
  return `${words.slice(0, -1).join(", ")} and ${words[words.length - 1]}`;
}
