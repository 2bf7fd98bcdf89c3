/** The four answers as typed, and as the server is asked. Pure. */
import type { FirstKitRequest, Transfer, KnownPlace, Requirement, Purpose } from "../api/types";
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
  /** Null while the purpose's own needs stand unchanged. */
  requirements: Requirement[] | null;
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
  requirements: null,
  transfers: {},
};

/** What to ask, or the sentence that says what is still missing or wrong. */
export function requestFrom(
  answers: Answers,
  purposes: Purpose[],
  places: KnownPlace[],
): { request: FirstKitRequest } | { missing: string } {
  const purpose = purposes.find((entry) => entry.id === answers.purposeId);
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
      requirements: answers.requirements,
      transfers: Object.keys(answers.transfers).length > 0 ? transfers.read : null,
      owned: answers.owned,
      budget: budget === null ? null : budget.toFixed(2),
    },
  };
}

/** Choosing a purpose brings its needs, and its usual place where none is chosen yet. */
export function withPurpose(answers: Answers, purpose: Purpose, places: KnownPlace[]): Answers {
  const next = { ...answers, purposeId: purpose.id, requirements: null, transfers: {} };
  const usual = places.find((entry) => entry.id === (purpose.place ?? "indoor-room"));
  const placed = answers.placeId === "" && usual ? withPlace(next, usual) : next;
  return { ...placed, power: impliedPower(purpose.requirements)?.power ?? placed.power };
}

/** Requirements change; one that can be met by one power source alone chooses that. */
export function withRequirements(answers: Answers, requirements: Requirement[]): Answers {
  return {
    ...answers,
    requirements,
    power: impliedPower(requirements)?.power ?? answers.power,
  };
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

/** Flows of which an amount is worth asking: not what is always the same. */
export function askable(transfers: Transfer[]): Transfer[] {
  return transfers.filter((transfer) => (transfer.amount_gb ?? 0) >= 0.1 || transfer.at_once > 1);
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
