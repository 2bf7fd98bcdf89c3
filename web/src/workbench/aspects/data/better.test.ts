import { expect, test } from "vitest";

import { read } from "../../../testing/reports";
import { betterText } from "./better";

const told = (...given: Parameters<typeof betterText>) => read(betterText(...given));

const moved = {
  bottleneck: "ethernet",
  bottleneck_label: "Ethernet, 1000 Mbit/s",
  betters: [{ rate_mb_s: 432, bottleneck: "flat-cable slot" }],
};

test("a faster bottleneck brings what the next one carries, any other link nothing", () => {
  expect(told(moved, "ethernet")).toBe(
    "This link is the bottleneck. A faster link brings 432 MB/s; the next bottleneck is flat-cable slot.",
  );
  expect(told(moved, "slot")).toBe(
    "A faster link changes nothing. Bottleneck: Ethernet, 1000 Mbit/s.",
  );
});

test("a stream that has what it wants has no bottleneck", () => {
  expect(told({ bottleneck: null, bottleneck_label: "", betters: [] }, "ethernet")).toBe(
    "Not the bottleneck: a faster link changes nothing.",
  );
});

test("behind the last bottleneck nothing is known to come", () => {
  expect(told({ ...moved, betters: [] }, "ethernet")).toBe("This link is the bottleneck.");
  expect(told({ ...moved, betters: [{ rate_mb_s: 432, bottleneck: "" }] }, "ethernet")).toBe(
    "This link is the bottleneck. A faster link brings 432 MB/s.",
  );
});
