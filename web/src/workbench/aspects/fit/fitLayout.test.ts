import { describe, expect, it } from "vitest";

import type { Report } from "../../../api/types";
import { margin, report } from "../../../testing/reports";
import { fitLayout } from "./fitLayout";

type Fit = Report["fit"];

const box = (label: string, z: number, height: number, look: Fit["boxes"][number]["look"]) => ({
  item: `${label}#1`,
  line: label,
  label,
  look,
  x_mm: 0,
  y_mm: 0,
  z_mm: z,
  dx_mm: 86,
  dy_mm: 56,
  dz_mm: height,
});

const fit: Partial<Fit> = {
  board_length_mm: 86,
  board_width_mm: 56,
  board_thickness_mm: 1.5,
  boxes: [box("Board", -1.5, 1.5, "pcb"), box("Cooler", 2, 40, "sink")],
  case: {
    line: "case",
    label: "Case",
    open: false,
    inner_x_mm: -6,
    inner_y_mm: -6,
    inner_length_mm: 98,
    inner_width_mm: 68,
    room: "",
    drilled: false,
    placed: false,
    wall_mm: 2,
    max_above_mm: 30,
    max_below_mm: 8,
    openings: [],
    open_edges: [],
  },
  reaches: [
    { side: "above", line: "Cooler", label: "Cooler", reach_mm: 42, margin: "FIT-05:above" },
    { side: "below", line: "Board", label: "Board", reach_mm: 2, margin: "FIT-05:below" },
  ],
};
const margins = [
  margin({ id: "FIT-05:above", unit: "mm", spare: -12, severity: "problem" }),
  margin({ id: "FIT-05:below", unit: "mm", spare: 6 }),
];

describe("the side elevation", () => {
  const layout = fitLayout(report({ fit, margins }), 640, 400);
  const block = (label: string) => layout?.blocks.find((entry) => entry.label === label);

  it("is to scale in both directions", () => {
    const board = block("Board");
    expect((board?.width ?? 0) / 86).toBeCloseTo(layout?.scale ?? 0, 1);
    const cooler = block("Cooler");
    expect((cooler?.height ?? 0) / 40).toBeCloseTo(layout?.scale ?? 0, 1);
  });

  it("hatches what reaches through the lid, and nothing else", () => {
    expect(block("Cooler")?.clashes).toBe(true);
    expect(block("Board")?.clashes).toBe(false);
  });

  it("measures the gaps that the core judged", () => {
    expect(layout?.gaps.map((gap) => gap.margin.spare)).toEqual([-12, 6]);
    const [above] = layout?.gaps ?? [];
    expect((above?.to ?? 0) - (above?.from ?? 0)).toBeCloseTo(12 * (layout?.scale ?? 0), 0);
  });

  it("fits into the room there is", () => {
    expect(layout?.width).toBe(640);
    for (const entry of layout?.blocks ?? []) {
      expect(entry.x).toBeGreaterThanOrEqual(0);
      expect(entry.x + entry.width).toBeLessThanOrEqual(640);
      expect(entry.y).toBeGreaterThanOrEqual(0);
    }
  });

  it("keeps names apart from each other", () => {
    const ys = (layout?.names ?? []).map((name) => name.y);
    for (let i = 1; i < ys.length; i++)
      expect((ys[i] ?? 0) - (ys[i - 1] ?? 0)).toBeGreaterThanOrEqual(17);
  });

  it("has nothing to draw without a board", () => {
    expect(fitLayout(report({}), 640, 400)).toBeNull();
  });
});
