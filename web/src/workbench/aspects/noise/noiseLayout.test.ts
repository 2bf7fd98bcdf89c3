import { expect, test } from "vitest";

import { noiseLayout } from "./noiseLayout";

const FAN = { line: "cooling", name: "Hush Clip", level_dba: 26 };
const DISK = { line: "storage", name: "Drum 1T", level_dba: 24 };

test("bars are as long as their levels, and all together is the longest", () => {
  const layout = noiseLayout({ heard: [FAN, DISK], level_dba: 28.1, limit_dba: null, rooms: [] });
  const widths = layout.rows.map((row) => row.width ?? 0);
  expect(layout.rows.map((row) => row.name)).toEqual(["Hush Clip", "Drum 1T", "Total"]);
  expect((widths[0] ?? 0) / (widths[1] ?? 1)).toBeCloseTo(26 / 24);
  expect(widths[2]).toBeGreaterThan(widths[0] ?? 0);
  expect(layout.rows[2]?.text).toBe("28\u00a0dB(A)");
  expect(layout.limit).toBeNull();
});

test("one alone needs no sum, and a limit beyond the scale widens it", () => {
  const layout = noiseLayout({ heard: [FAN], level_dba: 26, limit_dba: 55, rooms: [] });
  expect(layout.rows).toHaveLength(1);
  expect(layout.ticks.at(-1)?.level).toBe(60);
  expect(layout.over).toBe(false);
  expect(layout.limit).toBeGreaterThan(layout.start + (layout.rows[0]?.width ?? 0));
});

test("what is not known has no bar, and what is too loud is marked", () => {
  const heard = [FAN, { ...DISK, level_dba: null }];
  const layout = noiseLayout({ heard, level_dba: 26, limit_dba: 20, rooms: [] });
  expect(layout.rows[1]).toMatchObject({ width: null, text: "not known" });
  expect(layout.over).toBe(true);
});
