/** The four answers as typed, and as the server is asked. Pure. */
import type { FirstKitRequest, Flow, KnownPlace, Need, Purpose } from "../api/types";
import { positive, readNumber } from "../ui/readNumber";

export interface Answers {
  name: string;
  purposeId: string;
  placeId: string;
  coldest: string;
  hottest: string;
  owned: string[];
  budget: string;
  /** Null while the purpose's own needs stand unchanged. */
  needs: Need[] | null;
  /** What was typed for the purpose's flows, by flow; nothing where it stands as it came. */
  flows: Record<string, FlowAnswer>;
}

/** How much of a flow there is, and how soon it has to be there, as typed. */
export interface FlowAnswer {
  amount: string;
  within: string;
}

export const NO_ANSWERS: Answers = {
  name: "",
  purposeId: "",
  placeId: "",
  coldest: "",
  hottest: "",
  owned: [],
  budget: "",
  needs: null,
  flows: {},
};

/** What to ask, or the sentence that says what is still missing or wrong. */
export function requestFrom(
  answers: Answers,
  purposes: Purpose[],
  places: KnownPlace[],
): { request: FirstKitRequest } | { missing: string } {
  const purpose = purposes.find((entry) => entry.id === answers.purposeId);
  if (!purpose) return { missing: "Choose what it will do." };
  const place = places.find((entry) => entry.id === answers.placeId);
  if (!place) return { missing: "Choose where it will live." };
  const coldest = readNumber(answers.coldest);
  const hottest = readNumber(answers.hottest);
  if (Number.isNaN(coldest) || Number.isNaN(hottest))
    return { missing: "The coldest and the hottest day must be numbers, such as 15 and 28." };
  if (coldest > hottest) return { missing: "The coldest day must not be warmer than the hottest." };
  const budget = answers.budget.trim() === "" ? null : readNumber(answers.budget);
  if (budget !== null && !(budget >= 0))
    return { missing: "The budget must be a number, such as 150." };
  const flows = flowsFrom(purpose.flows, answers.flows);
  if ("missing" in flows) return flows;
  return {
    request: {
      name: answers.name.trim() || purpose.title,
      purpose: purpose.id,
      place: { ...place.place, ambient_min_c: coldest, ambient_max_c: hottest },
      needs: answers.needs,
      flows: Object.keys(answers.flows).length > 0 ? flows.read : null,
      owned: answers.owned,
      budget: budget === null ? null : budget.toFixed(2),
    },
  };
}

/** Choosing a purpose brings its needs, and its usual place where none is chosen yet. */
export function withPurpose(answers: Answers, purpose: Purpose, places: KnownPlace[]): Answers {
  const next = { ...answers, purposeId: purpose.id, needs: null, flows: {} };
  const usual = places.find((entry) => entry.id === (purpose.place ?? "indoor-room"));
  return answers.placeId === "" && usual ? withPlace(next, usual) : next;
}

export function withPlace(answers: Answers, place: KnownPlace): Answers {
  return {
    ...answers,
    placeId: place.id,
    coldest: String(place.place.ambient_min_c),
    hottest: String(place.place.ambient_max_c),
  };
}

/** What is asked about a flow: of files how much at a time, of a stream how many at once. */
export function flowAnswer(flow: Flow): FlowAnswer {
  return {
    amount: `${flow.amount_gb ?? flow.at_once}`,
    within: flow.within_min === null ? "" : `${flow.within_min}`,
  };
}

/** Flows of which an amount is worth asking: not what is always the same. */
export function askable(flows: Flow[]): Flow[] {
  return flows.filter((flow) => (flow.amount_gb ?? 0) >= 0.1 || flow.at_once > 1);
}

function flowsFrom(
  flows: Flow[],
  typed: Record<string, FlowAnswer>,
): { read: Flow[] } | { missing: string } {
  const read: Flow[] = [];
  for (const flow of flows) {
    const answer = typed[flow.id];
    if (!answer) {
      read.push(flow);
      continue;
    }
    const amount = positive(answer.amount);
    const within = answer.within.trim() === "" ? null : positive(answer.within);
    if (amount === null || (flow.amount_gb === null && !Number.isInteger(amount)))
      return {
        missing: `How much of “${flow.text}” is a number, such as ${flowAnswer(flow).amount}.`,
      };
    if (answer.within.trim() !== "" && within === null)
      return { missing: `The time for “${flow.text}” is a number of minutes, or empty.` };
    read.push(
      flow.amount_gb === null
        ? { ...flow, at_once: amount }
        : { ...flow, amount_gb: amount, within_min: within },
    );
  }
  return { read };
}
