/** The four answers as typed, and as the server is asked. Pure. */
import type {
  AskedRequest,
  FirstKitRequest,
  Transfer,
  KnownPlace,
  Requirement,
  Purpose,
} from "../api/types";
import { positive, readNumber } from "../ui/readNumber";

export type PowerSource = NonNullable<KnownPlace["place"]["power"]>;

export interface Answers {
  name: string;
  purposeId: string;
  placeId: string;
  coldest: string;
  hottest: string;
  power: PowerSource;
  latitude: string;
  owned: string[];
  budget: string;
  /** Which of the purpose's forms; empty for the first. */
  form: string;
  /** Amounts of the purpose's requirements, as typed. */
  amounts: Record<string, string>;
  /** Requirements of the purpose that nobody has. */
  removed: string[];
  /** Requirements of one's own. */
  added: Requirement[];
  /** What was typed for the purpose's flows, by flow; nothing where it stands as it came. */
  transfers: Record<string, TransferAnswer>;
}

/** How much of a flow there is, and how soon it has to be there, as typed. */
export interface TransferAnswer {
  amount: string;
  within: string;
}

export const NO_ANSWERS: Answers = {
  name: "",
  purposeId: "",
  placeId: "",
  coldest: "",
  hottest: "",
  power: "mains",
  latitude: "",
  owned: [],
  budget: "",
  form: "",
  amounts: {},
  removed: [],
  added: [],
  transfers: {},
};

/** What the purpose is asked for with its form and amounts, null where it is as it came; or the
 *  sentence that says which amount is wrong. */
export function askedFrom(
  answers: Answers,
  purpose: Purpose,
): { asked: AskedRequest | null } | { missing: string } {
  const amounts: Record<string, number> = {};
  for (const [id, typed] of Object.entries(answers.amounts)) {
    const amount = positive(typed);
    const text = purpose.requirements.find((entry) => entry.id === id)?.text ?? id;
    if (amount === null || amount > MOST_AMOUNT)
      return { missing: `Enter the amount of “${text}” as a number above 0, for example 10.` };
    amounts[id] = amount;
  }
  const { form, removed } = answers;
  const asItCame = form === "" && removed.length === 0 && Object.keys(amounts).length === 0;
  return { asked: asItCame ? null : { form: form || null, amounts, removed } };
}

const MOST_AMOUNT = 1e6;

/** What to ask, or the sentence that says what is still missing or wrong. The purpose is as it is
 *  with its form and amounts. */
export function requestFrom(
  answers: Answers,
  purpose: Purpose | undefined,
  places: KnownPlace[],
): { request: FirstKitRequest } | { missing: string } {
  if (!purpose) return { missing: "Choose a purpose." };
  const place = places.find((entry) => entry.id === answers.placeId);
  if (!place) return { missing: "Choose a location." };
  const coldest = readNumber(answers.coldest);
  const hottest = readNumber(answers.hottest);
  if (Number.isNaN(coldest) || Number.isNaN(hottest))
    return { missing: "Enter the lowest and highest ambient as numbers, for example 15 and 28." };
  if (coldest > hottest) return { missing: "The lowest ambient must not be above the highest." };
  const budget = answers.budget.trim() === "" ? null : readNumber(answers.budget);
  if (budget !== null && !(budget >= 0))
    return { missing: "Enter the budget as a number, for example 150." };
  const latitude =
    answers.power !== "solar" || answers.latitude.trim() === ""
      ? null
      : readNumber(answers.latitude);
  if (latitude !== null && !(Math.abs(latitude) <= 90))
    return { missing: "Enter the latitude in degrees, from -90 to 90, or leave it empty." };
  const transfers = transfersFrom(purpose.transfers, answers.transfers);
  if ("missing" in transfers) return transfers;
  const asked = askedFrom(answers, purpose);
  if ("missing" in asked) return asked;
  const own = asked.asked !== null || answers.added.length > 0;
  return {
    request: {
      name: answers.name.trim() || purpose.title,
      purpose: purpose.id,
      place: {
        ...place.place,
        ambient_min_c: coldest,
        ambient_max_c: hottest,
        power: answers.power,
        latitude_deg: latitude,
      },
      summary: asked.asked ? purpose.summary : null,
      requirements: own ? requirementsOf(answers, purpose) : null,
      transfers: own || Object.keys(answers.transfers).length > 0 ? transfers.read : null,
      owned: answers.owned,
      budget: budget === null ? null : budget.toFixed(2),
    },
  };
}

/** Choosing a purpose brings its needs, and its usual place where none is chosen yet. */
export function withPurpose(answers: Answers, purpose: Purpose, places: KnownPlace[]): Answers {
  const { form, amounts, removed, added, transfers } = NO_ANSWERS;
  const next = { ...answers, purposeId: purpose.id, form, amounts, removed, added, transfers };
  const usual = places.find((entry) => entry.id === (purpose.place ?? "indoor-room"));
  const placed = answers.placeId === "" && usual ? withPlace(next, usual) : next;
  return { ...placed, power: impliedPower(purpose.requirements)?.power ?? placed.power };
}

/** All that is asked: the purpose's requirements, and one's own. */
export function requirementsOf(answers: Answers, purpose: Purpose): Requirement[] {
  const there = purpose.requirements.filter((entry) => !answers.removed.includes(entry.id));
  const added = answers.added.map((entry) => {
    const amount = positive(answers.amounts[entry.id] ?? "");
    if (amount === null) return entry;
    return entry.at_most === null ? { ...entry, at_least: amount } : { ...entry, at_most: amount };
  });
  return [...there, ...added];
}

/** One requirement more; one that can be met by one power source alone chooses that. */
export function withRequirement(answers: Answers, requirement: Requirement): Answers {
  return {
    ...answers,
    added: [...answers.added, requirement],
    power: impliedPower([requirement])?.power ?? answers.power,
  };
}

/** One less: one's own is gone, one of the purpose is not asked. */
export function withoutRequirement(answers: Answers, id: string): Answers {
  const added = answers.added.filter((entry) => entry.id !== id);
  if (added.length < answers.added.length) return { ...answers, added };
  const amounts = Object.fromEntries(Object.entries(answers.amounts).filter(([key]) => key !== id));
  return { ...answers, removed: [...answers.removed, id], amounts };
}

/** Another form of the purpose begins with its own amounts. */
export function withForm(answers: Answers, form: string): Answers {
  return { ...answers, form, amounts: {}, transfers: {} };
}

/** Another amount of a requirement: one's own takes it, where it is a number. */
export function withAmount(answers: Answers, id: string, typed: string): Answers {
  return { ...answers, amounts: { ...answers.amounts, [id]: typed } };
}

const FED_BY: Partial<Record<NonNullable<Requirement["function"]>, PowerSource>> = {
  solar: "solar",
  vehicle_power: "vehicle",
};

/** The power source that a requirement asks for, and which one does. */
export function impliedPower(
  requirements: Requirement[],
): { power: PowerSource; by: string } | null {
  for (const { function: wanted, text } of requirements) {
    const power = wanted && FED_BY[wanted];
    if (power) return { power, by: text };
  }
  return null;
}

export function withPlace(answers: Answers, place: KnownPlace): Answers {
  return {
    ...answers,
    placeId: place.id,
    coldest: String(place.place.ambient_min_c),
    hottest: String(place.place.ambient_max_c),
    power: place.place.power,
  };
}

/** What is asked about a flow: of files how much at a time, of a stream how many at once. */
export function transferAnswer(transfer: Transfer): TransferAnswer {
  return {
    amount: `${transfer.amount_gb ?? transfer.at_once}`,
    within: transfer.within_min === null ? "" : `${transfer.within_min}`,
  };
}

/** Flows of which an amount is worth asking: not what is always the same, nor streams whose number
 *  is asked for as a requirement. */
export function askable({
  transfers,
  amounts,
}: Pick<Purpose, "transfers" | "amounts">): Transfer[] {
  const asked = Object.values(amounts).flatMap((amount) => Object.keys(amount.transfers));
  return transfers.filter(
    (transfer) =>
      (transfer.amount_gb ?? 0) >= 0.1 || (transfer.at_once > 1 && !asked.includes(transfer.id)),
  );
}

function transfersFrom(
  transfers: Transfer[],
  typed: Record<string, TransferAnswer>,
): { read: Transfer[] } | { missing: string } {
  const read: Transfer[] = [];
  for (const transfer of transfers) {
    const answer = typed[transfer.id];
    if (!answer) {
      read.push(transfer);
      continue;
    }
    const amount = positive(answer.amount);
    const within = answer.within.trim() === "" ? null : positive(answer.within);
    if (amount === null || (transfer.amount_gb === null && !Number.isInteger(amount)))
      return {
        missing: `Enter the amount of “${transfer.text}” as a number, for example ${transferAnswer(transfer).amount}.`,
      };
    if (answer.within.trim() !== "" && within === null)
      return { missing: `Enter the time for “${transfer.text}” in minutes, or leave it empty.` };
    read.push(
      transfer.amount_gb === null
        ? { ...transfer, at_once: amount }
        : { ...transfer, amount_gb: amount, within_min: within },
    );
  }
  return { read };
}
