import { describe, expect, it } from "vitest";

import { change, figure, money, spareText } from "./numbers";
import { read } from "../testing/reports";

describe("figures", () => {
  it("have the digits of their unit", () => {
    expect(read(figure(1.2345, "A"))).toBe("1.23 A");
    expect(read(figure(54.45, "mm"))).toBe("54.5 mm");
    expect(read(figure(78.4, "°C"))).toBe("78 °C");
  });

  it("carry a minus sign, not a hyphen", () => {
    expect(read(figure(-0.5, "A"))).toBe("−0.50 A");
  });

  it("show money with its sign, and cents only where there are some", () => {
    expect(read(money("591", "EUR"))).toBe("€591");
    expect(read(money("7.50", "EUR"))).toBe("€7.50");
    expect(read(money(-3, "EUR"))).toBe("−€3");
    expect(read(money(12, "CHF"))).toBe("CHF 12");
  });
});

describe("changes", () => {
  it("are signed, and empty where they round to nothing", () => {
    expect(read(change(0.2, "A"))).toBe("+0.20 A");
    expect(read(change(-23, "EUR"))).toBe("−€23");
    expect(read(change(0.004, "A"))).toBe("");
    expect(read(change(-0.3, "°C"))).toBe("");
    expect(read(change(null, "A"))).toBe("");
  });
});

describe("what is spare", () => {
  it("says short, or over for money", () => {
    expect(read(spareText(9.34, "mm"))).toBe("9.3 mm");
    expect(read(spareText(-0.7, "A"))).toBe("0.70 A short");
    expect(read(spareText(35, "EUR"))).toBe("€35 left");
    expect(read(spareText(-2.5, "EUR"))).toBe("€2.50 over");
  });
});
