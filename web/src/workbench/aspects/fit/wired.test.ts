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
    expect(wiredFrom({ ...led, forwardV: "1,9", madeForV: "12" }, new Set())).toMatchObject({
      forward_v: 1.9,
      made_for_v: 12,
    });
  });

  it.each([
    [{ label: "  " }, "name"],
    [{ pin: "" }, "pin"],
    [{ forwardV: "bright" }, "forward voltage"],
    [{ currentMa: "-2" }, "current"],
    [{ madeForV: "mains" }, "supply voltage"],
  ])("says what is wrong with %o", (change, words) => {
    const found = wiredFrom({ ...led, ...change }, new Set());
    expect("wrong" in found && found.wrong).toContain(words);
  });
});
