import { expect, test } from "vitest";

import type { DataLink, Moved } from "../../../api/types";
import { wrapped } from "../../../ui/wrapped";
import { channelHeight, channels, rateAxis, usedOf } from "./channels";
import { read } from "../../../testing/reports";

const link = (change: Partial<DataLink>): DataLink => ({
  id: "a",
  label: "Ethernet, 1000 Mbit/s",
  kind: "ethernet",
  to: "Mullion 8",
  note: "",
  mb_s: 100,
  taken_mb_s: 25,
  own_mb_s: 25,
  full: false,
  shared_with: [],
  line: "board",
  figure: "way:copy:a",
  ...change,
});

const moved = (links: DataLink[]): Moved => ({
  transfer: "copy",
  text: "a copy",
  stream: false,
  rate_mb_s: 25,
  could_mb_s: 25,
  wanted_mb_s: null,
  amount_gb: 48,
  minutes: 31,
  minutes_p05: 28,
  minutes_p95: 35,
  allowed_min: 20,
  buffer_mb: null,
  lag: null,
  small_mb_s: null,
  bottleneck: "b",
  bottleneck_label: "USB 2 pair",
  asked_by: [],
  begins: "the network",
  links,
  betters: [],
});

test("a faster link is a taller channel, and what passes fills its share of it", () => {
  expect(channelHeight(400)).toBeGreaterThan(channelHeight(40));
  const layout = channels(moved([link({}), link({ id: "b", mb_s: 25, full: true })]), 600);
  const [wide, bottleneck] = layout.channels;
  expect((wide?.filled ?? 0) / (wide?.height ?? 1)).toBeCloseTo(0.25);
  expect(bottleneck?.filled).toBe(bottleneck?.height);
  expect([wide?.bottleneck, bottleneck?.bottleneck]).toEqual([false, true]);
});

test("a thing that two links belong to is named once", () => {
  const names = channels(moved([link({}), link({ id: "b" })]), 600).posts.map((post) => post.label);
  expect(names).toEqual([["the network"], ["Mullion 8"], []]);
});

test("many links in little room are told downwards", () => {
  const many = Array.from({ length: 6 }, (_, index) => link({ id: `${index}` }));
  expect(channels(moved(many), 340).fits).toBe(false);
  expect(channels(moved(many), 900).fits).toBe(true);
});

test("a full link says so, others how much of them is taken", () => {
  expect(read(usedOf(link({})))).toBe("25 of 100 MB/s");
  expect(read(usedOf(link({ full: true, mb_s: 34.2 })))).toBe("34 MB/s: full");
});

test("words are broken between words", () => {
  expect(wrapped("USB 3 pair, one lane", 10)).toEqual(["USB 3", "pair, one", "lane"]);
});

test("an axis from zero makes what is twice as fast twice as long", () => {
  const { at, ticks } = rateAxis([26, 111], 0, 100);
  expect(at(0)).toBe(0);
  expect(at(80)).toBeCloseTo(2 * at(40));
  expect(ticks).toEqual([0, 20, 40, 60, 80, 100]);
  expect(rateAxis([432, 852], 0, 1).ticks).toEqual([0, 200, 400, 600, 800]);
  expect(rateAxis([3.1], 0, 1).ticks).toEqual([0, 1, 2, 3]);
});
