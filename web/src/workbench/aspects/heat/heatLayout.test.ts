import { describe, expect, it } from "vitest";

import type { Report } from "../../../api/types";
import { report, read } from "../../../testing/reports";
import { wrapped } from "../../../ui/wrapped";
import { heatLayout } from "./heatLayout";
import { heatRows } from "./heatRows";

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

  it("writes the watts of flows over no other words", () => {
    const base = warm();
    const [die] = base.heat.nodes;
    const node = (id: string, temp: number, limit: number | null) =>
      die ? [{ ...die, id, label: id, temp_c: [temp], limit_c: limit }] : [];
    base.heat.ambient_c = 26;
    base.heat.nodes = [
      node("wall", 42, null),
      node("inside", 51, null),
      node("board", 74, null),
      node("sink", 61, null),
      node("die", 77, 80),
      node("drive 1", 109, 80),
      node("drive 2", 109, 80),
      node("regulator", 76, 115),
      node("chip", 77, 105),
    ].flat();
    const path = (start: string, end: string, watts: number) => ({ start, end, power_w: [watts] });
    base.heat.paths = [
      path("drive 1", "inside", 5),
      path("drive 2", "inside", 5),
      path("die", "sink", 6.4),
      path("sink", "inside", 5.1),
      path("board", "inside", 3.2),
      path("inside", "outside", 17.2),
      path("wall", "outside", 6),
    ];
    const drawn = heatLayout(base, 0, 664, 440);
    const words = (drawn?.transfers ?? []).flatMap(({ id, label }) =>
      label
        ? [{ id, left: label.x + 8, right: label.x + 40, top: label.y - 9, bottom: label.y }]
        : [],
    );
    const figures = (drawn?.rungs ?? []).map(({ id, x, width, y }) => {
      return { id, left: x + width + 5, right: x + width + 24, top: y - 6, bottom: y + 4 };
    });
    const limits = (drawn?.rungs ?? []).flatMap(({ id, x, width, limit }) => {
      const middle = x + width / 2;
      const top = (limit?.y ?? 0) - 14;
      return limit
        ? [
            {
              id: `limit of ${id}`,
              left: middle - 10,
              right: middle + 10,
              top,
              bottom: limit.y - 4,
            },
          ]
        : [];
    });
    expect(words.length).toBe(7);
    for (const [n, one] of words.entries())
      for (const other of [...words.slice(0, n), ...figures, ...limits]) {
        const apart =
          one.right <= other.left ||
          other.right <= one.left ||
          one.bottom <= other.top ||
          other.bottom <= one.top;
        expect(apart, `${one.id} over ${other.id}`).toBe(true);
      }
  });

  it("makes flows as wide as their watts, and names only those that count", () => {
    const transfer = (id: string) => layout?.transfers.find((entry) => entry.id === id);
    expect(
      (transfer("board-inside")?.width ?? 0) / (transfer("die-board")?.width ?? 1),
    ).toBeCloseTo(1.25, 1);
    expect(transfer("board-wall")?.label).toBeNull();
    expect(transfer("wall-outside")?.label).not.toBeNull();
  });

  it("keeps everything on the sheet", () => {
    for (const entry of layout?.rungs ?? []) {
      expect(entry.x).toBeGreaterThanOrEqual(0);
      expect(entry.x + entry.width).toBeLessThanOrEqual(640);
      expect(entry.y).toBeGreaterThanOrEqual(0);
      expect(entry.y).toBeLessThanOrEqual(430);
    }
  });

  it("draws the hot bodies that are closest to their limit, and says how many it leaves out", () => {
    const crowded = warm();
    const face = (n: number) => ({
      id: `x#${n}`,
      label: `Regulator of board ${n}`,
      temp_c: [60 + n],
      temp_p05_c: [55],
      temp_p95_c: [70],
      limit_c: 100,
    });
    crowded.heat.nodes = [...crowded.heat.nodes, ...[1, 2, 3, 4, 5, 6].map(face)];
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

describe("the same in a narrow room", () => {
  const rows = heatRows(warm(), 0, 358);
  const row = (id: string) => rows?.rows.find((entry) => entry.id === id);

  it("has a row for each node, from the outside inwards", () => {
    expect(rows?.rows.map((entry) => entry.id)).toEqual(["wall", "inside", "board", "die"]);
    const ys = rows?.rows.map((entry) => entry.y) ?? [];
    expect(new Set(ys).size).toBe(4);
    expect(Math.max(...ys) + 30).toBeLessThan(rows?.height ?? 0);
  });

  it("puts what is warmer farther right, between its likely figures and before its limit", () => {
    expect(row("die")?.tempX).toBeGreaterThan(row("wall")?.tempX ?? Infinity);
    expect(row("wall")?.tempX).toBeGreaterThan(rows?.outside.x ?? Infinity);
    expect(row("die")?.band?.from).toBeLessThan(row("die")?.tempX ?? 0);
    expect(row("die")?.limit?.x).toBeGreaterThan(row("die")?.tempX ?? Infinity);
    expect(read(row("die")?.limit?.text ?? "")).toBe("limit 80 °C");
    expect(row("wall")?.limit).toBeNull();
    expect(row("die")?.limit?.x).toBeLessThan(358);
  });
});
