import { afterEach, expect, test, vi } from "vitest";

import { bare, change, difference, figure, money, sides, spareText, stated } from "./numbers";
import {
  asTyped,
  followShown,
  fromField,
  PLAIN,
  serverValue,
  setShown,
  shownNow,
  toField,
} from "./displayUnits";

const ABROAD = { temperature: "F", length: "in", decimal: "comma" } as const;

/** As it is written, with the spaces that do not break told as plain ones. */
const read = (text: string) => text.replaceAll("\u00a0", " ");

afterEach(() => {
  setShown(PLAIN);
});

test("figures are the server's until other units are wanted", () => {
  expect([figure(79.3, "°C"), figure(12.5, "mm"), money("12.50", "EUR")].map(read)).toEqual([
    "79 °C",
    "12.5 mm",
    "€12.50",
  ]);
  expect(toField("12.5", "mm")).toBe("12.5");
  expect(fromField("12,5", "mm")).toBe("12,5");
});

test("other units are told to who follows, once, whichever tab chose them", () => {
  const changed = vi.fn();
  const stop = followShown(changed);
  setShown(ABROAD);
  setShown(ABROAD);
  expect(changed).toHaveBeenCalledTimes(1);
  localStorage.setItem("cobblewort-shown", "C in point");
  window.dispatchEvent(new StorageEvent("storage", { key: "cobblewort-shown" }));
  expect(changed).toHaveBeenCalledTimes(2);
  expect(shownNow()).toEqual({ temperature: "C", length: "in", decimal: "point" });
  stop();
  setShown(PLAIN);
  expect(changed).toHaveBeenCalledTimes(2);
});

test("a temperature, a difference of two and a length change their unit", () => {
  setShown(ABROAD);
  expect(read(figure(79.3, "°C"))).toBe("175 °F");
  expect(read(difference(10, "°C"))).toBe("18 °F");
  expect(read(spareText(-16, "°C"))).toBe("29 °F short");
  expect(read(change(-10, "°C"))).toBe("−18 °F");
  expect(change(0.2, "°C")).toBe("");
  expect(read(figure(-40, "°C"))).toBe("−40 °F");
  expect(read(figure(12.5, "mm"))).toBe("0,492 in");
  expect(read(sides([254, 127], "mm"))).toBe("10 × 5 in");
  expect(bare(28, "°C")).toBe("82");
  expect(money(1.5, "EUR")).toBe("€1,50");
  expect(read(stated(0.15, "m"))).toBe("0,15 m");
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
