import { describe, expect, it } from "vitest";

import { report } from "../../../testing/reports";
import { aboveLayout } from "./aboveLayout";

const box = (line: string, look: string, x: number, y: number, dx: number, dy: number, z = 0) => ({
  item: `${line}#1`,
  line,
  label: line,
  look,
  x_mm: x,
  y_mm: y,
  z_mm: z,
  dx_mm: dx,
  dy_mm: dy,
  dz_mm: 2,
});

const { fit } = report({
  fit: {
    board_length_mm: 86,
    board_width_mm: 56,
    board_thickness_mm: 1.5,
    boxes: [box("Cooler", "sink", 10, 8, 40, 40, 3), box("Board", "pcb", 0, 0, 86, 56, -1.5)],
    plugs: [
      box("Stick", "plug", 88, 20, 50, 20),
      box("Supply", "plug", 5, -27, 12, 26),
      box("Card", "plug", -15, 22, 15, 12),
    ],
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
      openings: [{ edge: "lower", along_mm: 11.5, z_mm: 1.6, width_mm: 14, height_mm: 7 }],
      open_edges: ["left"],
    },
  },
});

describe("the view from above", () => {
  const layout = aboveLayout(fit, 640, 480, new Set());
  const block = (label: string) => layout?.blocks.find((entry) => entry.label === label);

  it("is to scale in both directions", () => {
    const board = block("Board");
    expect((board?.width ?? 0) / 86).toBeCloseTo((board?.height ?? 0) / 56, 1);
  });

  it("draws what lies higher over what lies lower", () => {
    expect(layout?.blocks.map((entry) => entry.label)).toEqual(["Board", "Cooler"]);
  });

  it("leaves out the layers that are lifted off", () => {
    const bare = aboveLayout(fit, 640, 480, new Set(["Cooler"]));
    expect(bare?.blocks.map((entry) => entry.label)).toEqual(["Board"]);
  });

  it("writes the names of plugs outside of them", () => {
    expect(layout?.plugs.map((plug) => plug.anchor)).toEqual(["start", "middle", "end"]);
    const [stick] = layout?.plugs ?? [];
    expect(stick?.textX).toBeGreaterThan((stick?.x ?? 0) + (stick?.width ?? 0));
  });

  it("opens the wall where the case does", () => {
    const [hole, side] = layout?.openings ?? [];
    const scale = (block("Board")?.width ?? 0) / 86;
    expect((hole?.width ?? 0) / scale).toBeCloseTo(14, 1);
    expect((side?.height ?? 0) / scale).toBeCloseTo(68, 1);
  });

  it("keeps to the room there is", () => {
    for (const entry of [...(layout?.blocks ?? []), ...(layout?.plugs ?? [])]) {
      expect(entry.x).toBeGreaterThanOrEqual(0);
      expect(entry.x + entry.width).toBeLessThanOrEqual(640);
      expect(entry.y + entry.height).toBeLessThanOrEqual(layout?.height ?? 0);
    }
  });

  it("has nothing to draw without a board", () => {
    expect(aboveLayout(report({}).fit, 640, 480, new Set())).toBeNull();
  });
});
