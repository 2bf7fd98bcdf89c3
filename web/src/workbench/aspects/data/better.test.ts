import { expect, test } from "vitest";

import { betterText } from "./better";

const moved = {
  bottleneck: "wire",
  bottleneck_label: "wire, 1000 Mb/s",
  betters: [{ rate_mb_s: 432, bottleneck: "flat-cable slot" }],
};

test("a better neck brings what the next one lets by, any other link nothing", () => {
  expect(betterText(moved, "wire")).toBe(
    "It is the neck: a better one brings 432 MB/s; then the neck is flat-cable slot.",
  );
  expect(betterText(moved, "slot")).toBe(
    "A better one brings nothing: the neck is wire, 1000 Mb/s.",
  );
});

test("a stream that has what it wants is held back by nothing", () => {
  expect(betterText({ bottleneck: null, bottleneck_label: "", betters: [] }, "wire")).toBe(
    "Nothing holds it back: a better one brings nothing.",
  );
});

test("behind the last neck nothing is known to come", () => {
  expect(betterText({ ...moved, betters: [] }, "wire")).toBe("It is the neck.");
  expect(betterText({ ...moved, betters: [{ rate_mb_s: 432, bottleneck: "" }] }, "wire")).toBe(
    "It is the neck: a better one brings 432 MB/s.",
  );
});
