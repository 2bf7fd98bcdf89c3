import { describe, expect, it } from "vitest";

import type { Report } from "../../../api/types";
import { headerLayout } from "./headerLayout";

type Header = Report["fit"]["header"];

const pin = (number: number, state: Header["pins"][number]["state"] = "free") => ({
  number,
  name: `task ${number}`,
  short: "",
  state,
});

const header: Header = {
  why_not: "",
  pins: Array.from({ length: 40 }, (_, at) => pin(at + 1, at + 1 === 8 ? "clash" : "free")),
  users: [
    { id: "a#1", name: "A receiver of position", line: "a", shares: [2, 6], takes: [7, 8] },
    { id: "b#1", name: "Fan", line: "b", shares: [6], takes: [8, 12] },
  ],
  addresses: [],
  wires: [],
  wired: [],
};

describe("the header", () => {
  const layout = headerLayout(header, 640);

  it("lies in two rows of twenty, even numbers along the edge", () => {
    const [one, two, three] = layout.pins;
    expect(one?.x).toBe(two?.x);
    expect(two?.y).toBeLessThan(one?.y ?? 0);
    expect((three?.x ?? 0) - (one?.x ?? 0)).toBeCloseTo(layout.cell, 1);
    expect(new Set(layout.pins.map((cell) => cell.x)).size).toBe(20);
  });

  it("ties a knot at every pin of a part, under that pin", () => {
    const [thread] = layout.threads;
    expect(thread?.knots.map((knot) => knot.pin)).toEqual([2, 6, 7, 8]);
    for (const knot of thread?.knots ?? []) {
      const cell = layout.pins[knot.pin - 1];
      expect(knot.x).toBeCloseTo((cell?.x ?? 0) + layout.cell / 2, 0);
    }
    expect(thread?.from).toBe(Math.min(...(thread?.knots.map((knot) => knot.x) ?? [])));
  });

  it("tells what is wanted alone, and where two want the same", () => {
    const knots = layout.threads[0]?.knots ?? [];
    expect(knots.map((knot) => knot.alone)).toEqual([false, false, true, true]);
    expect(knots.map((knot) => knot.clash)).toEqual([false, false, false, true]);
    expect(layout.bands.map((band) => band.key)).toEqual([8]);
  });

  it("cuts long names and keeps the whole in the title", () => {
    expect(layout.threads[0]?.label).toMatch(/…$/);
    expect(layout.threads[0]?.knots[0]?.title).toContain("A receiver of position: pin 2");
  });

  it("never gets narrower than its pins", () => {
    expect(headerLayout(header, 200).width).toBeGreaterThan(20 * 19);
  });
});
