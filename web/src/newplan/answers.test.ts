import { describe, expect, test } from "vitest";

import { plain, read } from "../testing/reports";

import type {
  Transfer,
  KnownPlace,
  Requirement,
  RequirementKind,
  Place,
  Purpose,
} from "../api/types";
import {
  askable,
  impliedPower,
  NO_ANSWERS,
  requestFrom,
  askedFrom,
  requirementsOf,
  withAmount,
  withForm,
  withoutRequirement,
  withPlace,
  withPurpose,
  withRequirement,
} from "./answers";
import { amountOf } from "../requirements/requirements";
import { lookedFor, requirementFrom, requirementTally } from "../requirements/requirements";

const ANY_REQUIREMENT: Requirement = {
  id: "x",
  text: "x",
  function: null,
  condition: null,
  limit: null,
  count: 1,
  at_least: null,
  at_most: null,
  rate_mb_h: null,
};
const TRANSFER = {
  id: "copies",
  text: "big files",
  amount_gb: 50,
  within_min: null,
  at_once: 1,
} as unknown as Transfer;
const PURPOSE = {
  id: "hub",
  title: "Hub",
  place: null,
  requirements: [],
  transfers: [TRANSFER],
} as unknown as Purpose;
const RECORDING = {
  kind: "function",
  id: "recording",
  label: "room for a recording",
  unit: "days",
  wants: "at_least",
  rate_unit: "MB an hour",
} as const;
const place = (fields: Partial<Place>) => fields as Place;
const LOFT: KnownPlace = {
  id: "loft",
  title: "Loft",
  place: place({ name: "Loft", power: "mains", ambient_min_c: 0, ambient_max_c: 42 }),
};
const ROOM: KnownPlace = {
  id: "indoor-room",
  title: "Room",
  place: place({ name: "Room", power: "mains", ambient_min_c: 15, ambient_max_c: 28 }),
};
const PLACES = [ROOM, LOFT];
const KINDS: RequirementKind[] = [
  { kind: "function", id: "wifi", label: "Wi-Fi", unit: "", wants: "count", rate_unit: "" },
  { kind: "function", id: "storage", label: "room", unit: "GB", wants: "at_least", rate_unit: "" },
  { kind: "condition", id: "silent", label: "makes no sound", unit: "", wants: "", rate_unit: "" },
  {
    kind: "condition",
    id: "without_mains",
    label: "off mains",
    unit: "h",
    wants: "at_least",
    rate_unit: "",
  },
  {
    kind: "limit",
    id: "mass_g",
    label: "not heavier than",
    unit: "g",
    wants: "at_most",
    rate_unit: "",
  },
  {
    kind: "condition",
    id: "without_mains",
    label: "runs without mains for",
    unit: "h",
    wants: "at_least",
    rate_unit: "",
  },
  RECORDING,
];

describe("the four answers", () => {
  test("a purpose brings its usual place, unless one is chosen", () => {
    expect(withPurpose(NO_ANSWERS, PURPOSE, PLACES)).toMatchObject({
      placeId: "indoor-room",
      hottest: "28",
    });
    const chosen = withPlace(NO_ANSWERS, LOFT);
    expect(read(withPurpose(chosen, PURPOSE, PLACES).placeId)).toBe("loft");
  });

  test("a requirement that one power source alone can meet chooses it", () => {
    const panel = { ...ANY_REQUIREMENT, text: "a panel", function: "solar" } as const;
    const whole = withPurpose(NO_ANSWERS, PURPOSE, PLACES);
    const asked = withRequirement(whole, panel);
    expect([whole.power, asked.power]).toEqual(["mains", "solar"]);
    expect(impliedPower(asked.added)).toEqual({ power: "solar", by: "a panel" });
    const read = requestFrom({ ...asked, power: "battery" }, PURPOSE, PLACES);
    expect("request" in read && read.request.place.power).toBe("battery");
    expect(withoutRequirement(asked, panel.id)).toMatchObject({ power: "solar", added: [] });
    const ride = { ...PURPOSE, requirements: [{ ...panel, function: "vehicle_power" }] } as Purpose;
    expect(withPurpose(NO_ANSWERS, ride, PLACES).power).toBe("vehicle");
  });

  test("what is missing is said in their order", () => {
    const missing = (answers: typeof NO_ANSWERS) => {
      const chosen = answers.purposeId ? PURPOSE : undefined;
      const read = requestFrom(answers, chosen, PLACES);
      return "missing" in read ? read.missing : "";
    };
    expect(missing(NO_ANSWERS)).toMatch("purpose");
    expect(missing({ ...NO_ANSWERS, purposeId: "hub" })).toMatch("location");
    const whole = withPurpose(NO_ANSWERS, PURPOSE, PLACES);
    expect(missing({ ...whole, hottest: "warm" })).toMatch("as numbers");
    expect(missing({ ...whole, coldest: "40" })).toMatch("not be above");
    expect(missing({ ...whole, budget: "-1" })).toMatch("budget");
    expect(missing({ ...whole, power: "solar", latitude: "north" })).toMatch("latitude");
    expect(missing({ ...whole, power: "mains", latitude: "north" })).toBe("");
    expect(read(missing(whole))).toBe("");
  });

  test("what is typed about a flow takes the place of what came with the purpose", () => {
    const asked = (amount: string, within = "") =>
      requestFrom(
        { ...withPurpose(NO_ANSWERS, PURPOSE, PLACES), transfers: { copies: { amount, within } } },
        PURPOSE,
        PLACES,
      );
    const read = asked("27,6", "20");
    expect("request" in read && read.request.transfers?.[0]).toMatchObject({
      amount_gb: 27.6,
      within_min: 20,
    });
    const told = (answer: ReturnType<typeof asked>) => ("missing" in answer ? answer.missing : "");
    expect(told(asked("much"))).toMatch("number");
    expect(told(asked("5", "soon"))).toMatch("minutes");
    const small = { ...TRANSFER, id: "small", amount_gb: 0.01 };
    const streams = { ...TRANSFER, id: "streams", amount_gb: null, at_once: 3 };
    const transfers = [TRANSFER, small, streams];
    expect(askable({ transfers, amounts: {} })).toEqual([TRANSFER, streams]);
    const amounts = { people: { text: "", summary: null, transfers: { streams: "" } } };
    expect(askable({ transfers, amounts })).toEqual([TRANSFER]);
  });

  test("the request carries the day, the drawer and the budget", () => {
    const answers = {
      ...withPurpose(NO_ANSWERS, PURPOSE, PLACES),
      budget: "120,5",
      owned: ["B06"],
    };
    const read = requestFrom(answers, PURPOSE, PLACES);
    expect("request" in read && read.request).toMatchObject({
      name: "Hub",
      budget: "120.50",
      owned: ["B06"],
      requirements: null,
      place: { ambient_max_c: 28, name: "Room" },
    });
  });
});

describe("forms and amounts", () => {
  const CHANNELS = { ...ANY_REQUIREMENT, id: "inputs", text: "sixteen", at_least: 16 } as const;
  const RECORDER = { ...PURPOSE, requirements: [CHANNELS], summary: "Two." } as Purpose;
  const whole = withPurpose(NO_ANSWERS, RECORDER, PLACES);

  test("a purpose as it came is not asked about", () => {
    expect(askedFrom(whole, RECORDER)).toEqual({ asked: null });
    const answers = withForm(withAmount(whole, "inputs", "3"), "stereo");
    expect(askedFrom(answers, RECORDER)).toEqual({
      asked: { form: "stereo", amounts: {}, removed: [] },
    });
    const sent = requestFrom(answers, RECORDER, PLACES);
    expect("request" in sent && sent.request).toMatchObject({
      summary: "Two.",
      requirements: [CHANNELS],
      transfers: [TRANSFER],
    });
  });

  test("an amount is a number, and goes with what asks for it", () => {
    const four = withAmount(whole, "inputs", "4");
    expect(askedFrom(four, RECORDER)).toMatchObject({ asked: { amounts: { inputs: 4 } } });
    for (const typed of ["", "none", "-2", "1e9"]) {
      const told = askedFrom(withAmount(whole, "inputs", typed), RECORDER);
      expect("missing" in told && told.missing).toContain("“sixteen”");
    }
    const without = withoutRequirement(four, "inputs");
    expect(without).toMatchObject({ amounts: {}, removed: ["inputs"] });
    expect(requirementsOf(without, RECORDER)).toEqual([]);
  });

  test("one's own take their amount where it is one", () => {
    const own = { ...CHANNELS, id: "own" };
    const asked = withAmount(withRequirement(whole, own), "own", "7");
    expect(requirementsOf(asked, RECORDER)[1]).toMatchObject({ at_least: 7 });
    expect(requirementsOf(withAmount(asked, "own", "x"), RECORDER)[1]).toEqual(own);
    expect(amountOf({ ...own, condition: "enough_processor" })).toBeNull();
  });
});

describe("needs of one's own", () => {
  const made = (choice: string, figure = "", text = "", rate = "") =>
    requirementFrom({ choice, figure, text, rate }, KINDS, ["wifi"]);

  test("a function, a condition and a limit", () => {
    expect(made("function:wifi", "2", " two of them ")).toMatchObject({
      requirement: { id: "wifi-2", text: "two of them", function: "wifi", count: 2 },
    });
    expect(made("condition:silent")).toMatchObject({
      requirement: { id: "silent", text: "makes no sound", condition: "silent" },
    });
    expect(made("limit:mass_g", "300")).toMatchObject({ requirement: { at_most: 300 } });
  });

  test("what is missing is said", () => {
    expect(made("")).toMatchObject({ wrong: expect.stringMatching(/Choose/) as string });
    expect(made("limit:mass_g")).toMatchObject({
      wrong: expect.stringMatching(/^Enter a value in /) as string,
    });
    expect(made("condition:without_mains")).toMatchObject({
      wrong: expect.stringMatching(/^Enter a value in /) as string,
    });
    expect(made("function:wifi", "1.5")).toMatchObject({
      wrong: expect.stringMatching(/whole/) as string,
    });
    expect(made("function:storage", "none")).toMatchObject({
      wrong: expect.stringMatching(/number/) as string,
    });
  });

  test("days of a recording want its rate", () => {
    expect(made("function:recording", "30")).toMatchObject({
      wrong: expect.stringMatching(/number of days and of MB an hour/) as string,
    });
    expect(made("function:recording", "", "", "330")).toMatchObject({
      wrong: expect.stringMatching(/number of days/) as string,
    });
    expect(made("function:recording", "30", "", "fast")).toMatchObject({
      wrong: expect.stringMatching(/for example 30/) as string,
    });
    const made30 = made("function:recording", "30", "a month of nights", "330");
    expect(made30).toMatchObject({ requirement: { at_least: 30, rate_mb_h: 330 } });
    expect("requirement" in made30 && read(lookedFor(made30.requirement, KINDS))).toBe(
      "room for a recording, at least 30 days at 330 MB an hour",
    );
  });

  test("needs are read aloud with their figure", () => {
    const requirement = (more: Partial<Requirement>): Requirement => ({
      ...ANY_REQUIREMENT,
      ...more,
    });
    expect(read(lookedFor(requirement({ function: "storage", at_least: 20 }), KINDS))).toBe(
      "room, at least 20 GB",
    );
    expect(read(lookedFor(requirement({ function: "wifi", count: 2 }), KINDS))).toBe("2 × Wi-Fi");
    expect(read(lookedFor(requirement({ limit: "mass_g", at_most: 300 }), KINDS))).toBe(
      "not heavier than 300 g",
    );
    const report = { text: "", sentence: plain(""), lines: [], unit: "", have: null, want: null };
    expect(
      read(
        requirementTally([
          { ...report, id: "a", status: "met" },
          { ...report, id: "b", status: "not_met" },
        ]),
      ),
    ).toBe("1 of 2 requirements met");
  });
});
