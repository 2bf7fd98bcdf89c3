import { describe, expect, it } from "vitest";

import { EMPTY, wiredFrom } from "./wired";

const led = { ...EMPTY, label: " red lamp ", pin: "11" };

describe("a button or LED from its fields", () => {
  it("becomes part of the plan", () => {
    expect(wiredFrom(led, new Set())).toEqual({
      id: "led-1",
      kind: "led",
      label: "red lamp",
      pin: 11,
      forward_v: 2,
      current_ma: 5,
      made_for_v: null,
    });
  });

  it("takes an id that nothing has", () => {
    expect(wiredFrom({ ...led, kind: "button" }, new Set(["button-1"]))).toMatchObject({
      id: "button-2",
    });
  });

  it("takes a comma for a point, and an LED sold for a voltage", () => {
    expect(wiredFrom({ ...led, forward_v: "1,9", made_for_v: "12" }, new Set())).toMatchObject({
      forward_v: 1.9,
      made_for_v: 12,
    });
  });

  it.each([
    [{ label: "  " }, "Name: enter one"],
    [{ pin: "" }, "Pin: choose one."],
    [{ forward_v: "bright" }, "Forward voltage: enter a number above 0"],
    [{ current_ma: "-2" }, "Current: "],
    [{ made_for_v: "mains" }, "Supply voltage on its label (optional): "],
  ])("says what is wrong with %o", (change, words) => {
    const found = wiredFrom({ ...led, ...change }, new Set());
    expect("wrong" in found && found.wrong).toContain(words);
  });
});
