import { expect, test } from "vitest";

import { plain, read } from "../../../testing/reports";

import type { Report, WearReport } from "../../../api/types";
import { fillLine, ropes } from "./ropes";

const wear = (years: number, low: number, high: number): WearReport => ({
  id: `${years}`,
  line: "boot_drive",
  label: "Plain 32, by writing",
  kind: "writing",
  how: plain("by 1.2 GB per day"),
  years,
  most_years: 60,
  years_p05: low,
  years_p95: high,
  margin: "",
  written: [],
});

const lifetime = (wears: WearReport[]): Report["lifetime"] => ({
  wanted_years: 5,
  wears,
  filling: { capacity_gb: 100, day_gb: 1, days: 100, when_full: "stops" },
  backups: {
    replaceable: true,
    copies: [],
    count: 1,
    media: 1,
    elsewhere: 0,
    complete: false,
    copy_h: null,
    restore_h: null,
  },
  maintenance: [],
  cards: [],
});

test("a rope is whole up to its low figure and parts at its typical one", () => {
  const layout = ropes(lifetime([wear(4.6, 3, 7)]), 700);
  const [rope] = layout.drawn;
  expect(rope?.sure).toBeLessThan(rope?.parts ?? 0);
  expect(rope?.parts).toBeLessThan(layout.wanted);
  expect(rope?.ends).toBeGreaterThan(layout.wanted);
  expect([rope?.short, read(rope?.text ?? "")]).toEqual([true, "4.6 years, by 1.2 GB per day"]);
});

test("where there is no room beside it, the words stand above a rope", () => {
  const layout = ropes(lifetime([wear(4.6, 3, 7), wear(6, 3, 7)]), 358);
  expect(layout.stacked).toBe(true);
  expect(layout.start).toBeLessThan(10);
  const [first, second] = layout.drawn;
  expect((second?.y ?? 0) - (first?.y ?? 0)).toBeGreaterThan(40);
});

test("long words behind a rope have their place", () => {
  const [short, long] = ["at 31 °C", "at 0.5 GB per day, in typical use"].map((how) =>
    ropes(lifetime([{ ...wear(6, 3, 7), how: plain(how) }]), 700),
  );
  expect(700 - (long?.end ?? 0)).toBeGreaterThan(40 * 6);
  expect(700 - (short?.end ?? 0)).toBeLessThan(200);
});

test("what outlasts the axis runs to its end and beyond", () => {
  const layout = ropes(lifetime([wear(100, 90, 100)]), 700);
  expect([layout.drawn[0]?.beyond, read(layout.drawn[0]?.text ?? "")]).toEqual([
    true,
    "60 years and more, by 1.2 GB per day",
  ]);
  expect(layout.drawn[0]?.parts).toBe(layout.end);
});

test("what outlasts all that is told runs on, unless more is wanted", () => {
  const fan = { ...wear(25, 25, 25), most_years: 25, how: plain("at 31 °C") };
  const told = (wanted_years: number) => {
    const layout = ropes({ ...lifetime([fan]), wanted_years }, 700);
    return [layout.drawn[0]?.beyond, layout.drawn[0]?.short, read(layout.drawn[0]?.text ?? "")];
  };
  expect(told(20)).toEqual([true, false, "25 years and more, at 31 °C"]);
  expect(told(30)).toEqual([false, true, "25 years, at 31 °C"]);
});

test("what stops when it is full stays full, what lets the oldest go is a saw", () => {
  const problems = fillLine({ capacity_gb: 100, day_gb: 1, days: 100, when_full: "stops" }, 3);
  expect(problems?.points.at(-1)?.[1]).toBe(1);
  const saw = fillLine({ capacity_gb: 100, day_gb: 1, days: 100, when_full: "deletes_oldest" }, 3);
  expect(saw?.points.filter(([, share]) => share === 0.75).length).toBeGreaterThan(2);
  expect(saw?.full).toBeCloseTo(100 / 30.44, 2);
  expect(fillLine({ capacity_gb: 100, day_gb: 0, days: null, when_full: "stops" }, 3)).toBeNull();
});
