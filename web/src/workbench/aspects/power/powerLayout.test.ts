import { describe, expect, it } from "vitest";

import { margin, node, report } from "../../../testing/reports";
import { powerDown } from "./powerDown";
import { powerLayout } from "./powerLayout";

const tree = report({
  nodes: [
    node("source", null, 3, { loads_a: [0] }),
    node("board", "source", 3, { kind: "board", loads_a: [1] }),
    node("usb", "board", 2, { via: "inside", margins: ["m"] }),
    node("spare rail", "board", 0, { via: "inside" }),
    node("disk a", "usb", 1, { loads_a: [1] }),
    node("disk b", "usb", 1, { loads_a: [1] }),
  ],
  margins: [
    margin({
      id: "m",
      spare_by_state: [-0.8],
      ruler_by_state: [-0.5],
      severity_by_state: ["problem"],
    }),
  ],
});

describe("the supply drawing", () => {
  const layout = powerLayout(tree, 0, 640);
  const box = (id: string) => layout.boxes.find((entry) => entry.id === id);

  it("stands parents left of children", () => {
    const xs = ["source", "board", "usb", "disk a"].map((id) => box(id)?.x ?? Number.NaN);
    expect(xs).toEqual([...xs].sort((a, b) => a - b));
    expect(new Set(xs).size).toBe(4);
  });

  it("gives every leaf a row of its own", () => {
    const rows = layout.boxes.filter((entry) => entry.isLeaf).map((entry) => entry.y);
    expect(new Set(rows).size).toBe(rows.length);
  });

  it("shows what the board itself draws as a leaf", () => {
    expect(box("board/load")?.label).toBe("Processor and memory");
    expect(box("board/load")?.currentA).toBe(1);
  });

  it("leaves out rails of the board that nothing hangs on", () => {
    expect(box("spare rail")).toBeUndefined();
  });

  it("makes leads as wide as their current", () => {
    const width = (id: string) => layout.cables.find((cable) => cable.id === id)?.width ?? 0;
    expect(width("board") / width("disk a")).toBeCloseTo(3, 1);
  });

  it("marks a node by its margin in the state that is drawn", () => {
    expect(box("usb")?.severity).toBe("problem");
    expect(box("usb")?.ruler?.spare).toBe(-0.8);
    expect(box("disk a")?.severity).toBe("ok");
  });

  it("passes over a rail that only hands something on", () => {
    const through = report({
      nodes: [
        node("source", null, 1),
        node("board3", "source", 1),
        node("regulator", "board3", 1, { via: "inside" }),
        node("drive", "regulator", 1, { loads_a: [1] }),
      ],
    });
    const ids = powerLayout(through, 0, 640).boxes.map((entry) => entry.id);
    expect(ids).not.toContain("regulator");
    expect(ids).toContain("drive");
  });

  it("keeps the words of a branching node on its left and inside the drawing", () => {
    const fanned = (id: string) => [
      node(`${id} a`, id, 1, { loads_a: [1] }),
      node(`${id} b`, id, 1, { loads_a: [1] }),
    ];
    const forest = report({
      nodes: [
        node("hub", null, 4),
        node("over", "hub", 2),
        node("under", "hub", 2),
        ...fanned("over"),
        ...fanned("under"),
        node("power_supply", null, 2),
        node("cable", "power_supply", 2),
        ...fanned("cable"),
      ],
    });
    const { boxes } = powerLayout(forest, 0, 640);
    const words = Object.fromEntries(boxes.map((entry) => [entry.id, entry.words]));
    expect(words).toMatchObject({
      hub: "above-left",
      over: "above-left",
      under: "below-left",
      power_supply: "below",
      cable: "above-left",
    });
    const atLeft = boxes.filter((entry) => entry.words.endsWith("left"));
    expect(Math.min(...atLeft.map((entry) => entry.x))).toBeGreaterThan(100);
    expect(boxes.find((entry) => entry.id === "power_supply")?.x).toBeLessThan(20);
  });

  it("takes the room that a deep tree needs", () => {
    const chain = report({
      nodes: Array.from({ length: 7 }, (_, n) =>
        node(`n${n}`, n === 0 ? null : `n${n - 1}`, 1, { loads_a: [n === 6 ? 1 : 0] }),
      ),
    });
    const deep = powerLayout(chain, 0, 480);
    const farthest = Math.max(...deep.boxes.map((entry) => entry.x));
    expect(deep.width - farthest).toBeGreaterThan(100);
    expect(powerLayout(tree, 0, 640).width).toBe(640);
  });

  it("bounds the digits of what it writes", () => {
    expect(layout.cables.every((cable) => !/\d\.\d{2,}/.test(cable.path))).toBe(true);
  });
});

describe("the same tree turned downwards", () => {
  const layout = powerDown(tree, 0, 358);
  const box = (id: string) => layout.boxes.find((entry) => entry.id === id);

  it("stands every node below what feeds it, and no two at one height", () => {
    const ys = layout.boxes.map((entry) => entry.y);
    expect(ys).toEqual([...ys].sort((a, b) => a - b));
    expect(new Set(ys).size).toBe(ys.length);
    expect(box("disk a")?.x).toBeGreaterThan(box("usb")?.x ?? Infinity);
    expect(layout.height).toBeGreaterThan(Math.max(...ys));
    expect(layout.width).toBe(358);
  });

  it("draws the same leads as the other, in the same tones and widths", () => {
    const told = (cables: typeof layout.cables) =>
      cables.map(({ id, width, severity }) => `${id} ${width} ${severity}`).sort();
    expect(told(layout.cables)).toEqual(told(powerLayout(tree, 0, 640).cables));
  });

  it("never runs one lead of a bar over another", () => {
    const starts = layout.cables
      .filter((cable) => ["disk a", "disk b"].includes(cable.id))
      .map((cable) => ({ x: Number(/M([\d.]+)/.exec(cable.path)?.[1]), width: cable.width }));
    const [first, second] = starts;
    expect((first?.x ?? 0) - (second?.x ?? 0)).toBeGreaterThan(first?.width ?? Infinity);
  });
});
