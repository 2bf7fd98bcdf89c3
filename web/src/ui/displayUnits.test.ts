import { afterEach, expect, test } from "vitest";

import { bare, change, difference, figure, money, sides, spareText, stated } from "./numbers";
import {
  asTyped,
  fromField,
  PLAIN,
  serverValue,
  setShown,
  shownHeader,
  toField,
} from "./displayUnits";

const ABROAD = { temperature: "F", length: "in", decimal: "comma" } as const;

afterEach(() => {
  setShown(PLAIN);
});

test("figures are the server's until other units are wanted", () => {
  expect(setShown(PLAIN)).toBe(false);
  expect([figure(79.3, "°C"), figure(12.5, "mm"), money("12.50", "EUR")]).toEqual([
    "79 °C",
    "12.5 mm",
    "€ 12.50",
  ]);
  expect(toField("12.5", "mm")).toBe("12.5");
  expect(fromField("12,5", "mm")).toBe("12,5");
});

test("a temperature, a difference of two and a length change their unit", () => {
  expect(setShown(ABROAD)).toBe(true);
  expect(shownHeader()).toBe("F in comma");
  // As a sentence tells 79 °C, so does the figure beside it: 79 °C are 174 °F, 79.3 would be 175.
  expect(figure(79.3, "°C")).toBe("174 °F");
  expect(difference(10, "°C")).toBe("18 °F");
  expect(spareText(-16, "°C")).toBe("29 °F short");
  expect(change(-10, "°C")).toBe("−18 °F");
  expect(change(0.2, "°C")).toBe("");
  expect(figure(-40, "°C")).toBe("−40 °F");
  expect(figure(12.5, "mm")).toBe("0,492 in");
  expect(sides([254, 127], "mm")).toBe("10 × 5 in");
  expect(bare(28, "°C")).toBe("82");
  expect(money(1.5, "EUR")).toBe("€ 1,50");
  expect(stated(0.15, "m")).toBe("0,15 m");
});

test("a field shows and takes the unit that is wanted, and its form holds the server's", () => {
  setShown(ABROAD);
  expect(toField("27", "°C")).toBe("80,6");
  expect(fromField("80,6", "°C")).toBe("27");
  expect(fromField("1", "mm")).toBe("25.4");
  expect(serverValue(1, "mm")).toBe(25.4);
  for (const typed of ["", "-", "about 5", "75 °F"]) expect(fromField(typed, "°C")).toBe(typed);
  expect([asTyped("3/8", "mm"), asTyped("3/8 in", "mm"), asTyped("3/8", "A")]).toEqual([
    "3/8 in",
    "3/8 in",
    "3/8",
  ]);
});
