import { describe, expect, it } from "vitest";

import { positive, readNumber } from "./readNumber";

describe("a number as people type it", () => {
  it.each([
    ["28", 28],
    [" 12,50 ", 12.5],
    ["-4.5", -4.5],
    ["−3", -3],
    ["0", 0],
  ])("%s", (text, value) => {
    expect(readNumber(text)).toBe(value);
  });

  it.each(["", "  ", "plenty", "1.2.3", "12 W", "Infinity", "1e400"])("is none: %s", (text) => {
    expect(readNumber(text)).toBeNaN();
  });
});

describe("a number above nothing", () => {
  it.each([
    ["1,5", 1.5],
    [" 12 ", 12],
    ["0", null],
    ["-3", null],
    ["", null],
    ["much", null],
    ["Infinity", null],
  ])("%s is %s", (text, value) => {
    expect(positive(text)).toBe(value);
  });
});
