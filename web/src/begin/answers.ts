/** The four answers as typed, and as the server is asked. Pure. */
import type { FirstKitRequest, KnownPlace, Need, Purpose } from "../api/types";
import { readNumber } from "../ui/readNumber";

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
  return {
    request: {
      name: answers.name.trim() || purpose.title,
      purpose: purpose.id,
      place: { ...place.place, ambient_min_c: coldest, ambient_max_c: hottest },
      needs: answers.needs,
      owned: answers.owned,
      budget: budget === null ? null : budget.toFixed(2),
    },
  };
}

/** Choosing a purpose brings its needs, and its usual place where none is chosen yet. */
export function withPurpose(answers: Answers, purpose: Purpose, places: KnownPlace[]): Answers {
  const next = { ...answers, purposeId: purpose.id, needs: null };
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
