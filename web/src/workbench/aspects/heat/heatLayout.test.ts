import { describe, expect, it } from "vitest";

import type { Report } from "../../../api/types";
import { report } from "../../../testing/reports";
import { heatLayout, wrapped } from "./heatLayout";

function warm(): Report {
  const base = report({});
  const node = (id: string, temp: number, limit: number | null = null) => ({
    id,
    label: id,
    temp_c: [temp],
    temp_p05_c: [temp - 4],
    temp_p95_c: [temp + 4],
    limit_c: limit,
  });
  return {
    ...base,
    heat: {
      ...base.heat,
      ambient_c: 30,
      states: [{ id: "idle", label: "Idle", hard: true }],
      nodes: [node("die", 75, 80), node("board", 60), node("inside", 45), node("wall", 38)],
      paths: [
        { start: "die", end: "board", power_w: [4] },
        { start: "board", end: "inside", power_w: [5] },
        { start: "inside", end: "wall", power_w: [4.9] },
        { start: "wall", end: "outside", power_w: [5] },
        { start: "board", end: "wall", power_w: [0.1] },
      ],
    },
  };
}

describe("the heat drawing", () => {
  const layout = heatLayout(warm(), 0, 640, 430);
  const rung = (id: string) => layout?.rungs.find((entry) => entry.id === id);

  it("stands warmer rungs higher and farther right", () => {
    const rungs = ["wall", "inside", "board", "die"].map(rung);
    for (let i = 1; i < rungs.length; i++) {
      expect(rungs[i]?.y).toBeLessThan(rungs[i - 1]?.y ?? 0);
      expect(rungs[i]?.x).toBeGreaterThan(rungs[i - 1]?.x ?? 0);
    }
  });

  it("draws a band around each rung, and a limit only where there is one", () => {
    const die = rung("die");
    expect(die?.band?.top).toBeLessThan(die?.y ?? 0);
    expect(die?.band?.bottom).toBeGreaterThan(die?.y ?? 0);
    expect(die?.limit?.y).toBeLessThan(die?.y ?? 0);
    expect(rung("board")?.limit).toBeNull();
  });

  it("makes flows as wide as their watts, and names only those that count", () => {
    const flow = (id: string) => layout?.flows.find((entry) => entry.id === id);
    expect((flow("board-inside")?.width ?? 0) / (flow("die-board")?.width ?? 1)).toBeCloseTo(
      1.25,
      1,
    );
    expect(flow("board-wall")?.label).toBeNull();
    expect(flow("wall-outside")?.label).not.toBeNull();
  });

  it("keeps everything on the sheet", () => {
    for (const entry of layout?.rungs ?? []) {
      expect(entry.x).toBeGreaterThanOrEqual(0);
      expect(entry.x + entry.width).toBeLessThanOrEqual(640);
      expect(entry.y).toBeGreaterThanOrEqual(0);
      expect(entry.y).toBeLessThanOrEqual(430);
    }
  });

  it("draws the hot spots that are closest to their limit, and says how many it leaves out", () => {
    const crowded = warm();
    const spot = (n: number) => ({
      id: `x#${n}`,
      label: `Regulator of board ${n}`,
      temp_c: [60 + n],
      temp_p05_c: [55],
      temp_p95_c: [70],
      limit_c: 100,
    });
    crowded.heat.nodes = [...crowded.heat.nodes, ...[1, 2, 3, 4, 5, 6].map(spot)];
    const drawn = heatLayout(crowded, 0, 480, 430);
    expect(drawn?.hidden).toBe(2);
    expect(drawn?.rungs.map((entry) => entry.id).filter((id) => id.startsWith("x"))).toEqual([
      "x#3",
      "x#4",
      "x#5",
      "x#6",
    ]);
  });

  it("wraps names to the width of their column", () => {
    expect(wrapped("Regulator of Twin Short", 10)).toEqual(["Regulator", "of Twin", "Short"]);
    expect(wrapped("Regulator of Twin Short", 30)).toEqual(["Regulator of Twin Short"]);
    expect(wrapped("Processor", 4)).toEqual(["Processor"]);
  });

  it("has nothing to draw without nodes", () => {
    expect(heatLayout(report({}), 0, 640, 430)).toBeNull();
  });
});
