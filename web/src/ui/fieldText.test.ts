import { describe, expect, it } from "vitest";

import { FIELDS } from "../api/labels";
import { freeId, textOf, valuesOf } from "./fieldText";

const NAMES = ["name", "ambient_max_c", "noise_max_dba", "wet", "dust"] as const;
const place = {
  name: "loft",
  ambient_max_c: 28,
  noise_max_dba: null,
  wet: true,
  dust: "some",
};

describe("the fields of a form", () => {
  it("come back as they were", () => {
    const text = textOf(FIELDS.place, NAMES, place);
    expect(text).toEqual({
      name: "loft",
      ambient_max_c: "28",
      noise_max_dba: "",
      wet: true,
      dust: "some",
    });
    expect(valuesOf(FIELDS.place, NAMES, text)).toEqual({ values: place });
  });

  it.each([
    [
      "ambient_max_c",
      "hot",
      "Highest ambient: enter a number from -60 to 90 °C, for example 28 (got hot).",
    ],
    ["ambient_max_c", "", "Highest ambient: enter a number from -60 to 90 °C, for example 28."],
    [
      "noise_max_dba",
      "900",
      "Noise limit at 1 m: enter a number above 0 and up to 140 dB(A), for example 25, or leave it empty (got 900).",
    ],
  ] as const)("say what is wrong in %s", (name, typed, told) => {
    const text = { ...textOf(FIELDS.place, NAMES, place), [name]: typed };
    expect(valuesOf(FIELDS.place, NAMES, text)).toEqual({ wrong: told });
  });

  it("take a decimal comma, money and lists", () => {
    const names = ["budget"] as const;
    expect(valuesOf(FIELDS.plan, names, { budget: "12,5" })).toEqual({
      values: { budget: "12.50" },
    });
    const families = valuesOf(FIELDS.image, ["families"] as const, { families: " A, ,B" });
    expect(families).toEqual({ values: { families: ["A", "B"] } });
  });

  it("leave to the server what is empty and has a default", () => {
    const runs = valuesOf(FIELDS.transfer, ["runs_a_day"] as const, { runs_a_day: "" });
    expect(runs).toEqual({ values: { runs_a_day: undefined } });
  });
});

describe("a free id", () => {
  it("is of the name, or of a word instead", () => {
    expect(freeId("A film!", new Set(), "transfer")).toBe("a-film");
    expect(freeId("A film", new Set(["a-film"]), "transfer")).toBe("a-film-2");
    expect(freeId("…", new Set(), "transfer")).toBe("transfer");
    expect(freeId("led", new Set(["led-1"]), "led", 1)).toBe("led-2");
  });
});
