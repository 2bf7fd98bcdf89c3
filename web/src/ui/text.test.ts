import { readFileSync } from "node:fs";

import { afterEach, expect, test } from "vitest";

import type { Text } from "../api/types";
import { read } from "../testing/reports";
import { PLAIN, setShown, type Shown } from "./displayUnits";
import { NO_BREAK, textOf } from "./text";

afterEach(() => {
  setShown(PLAIN);
});

interface Case {
  parts: Text["parts"];
  shown: Record<string, string>;
}

const CASES = JSON.parse(readFileSync("../tests/formats/text_cases.json", "utf8")) as Case[];

test("a text reads as the server writes it, letter for letter", () => {
  for (const { parts, shown } of CASES)
    for (const [choice, expected] of Object.entries(shown)) {
      const [temperature, length, decimal] = choice.split(" ");
      setShown({ temperature, length, decimal } as Shown);
      expect(read(textOf({ text: "", parts })), choice).toBe(expected);
    }
});

test("no unit parts from its number, and a word stays as it is", () => {
  const parts = [{ value: 3, unit: "A", decimals: 2 }];
  expect(textOf({ text: "3.00 A", parts })).toBe(`3.00${NO_BREAK}A`);
  expect(textOf("12 mm")).toBe("12 mm");
});
