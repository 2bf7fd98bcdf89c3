import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";

import { margin, node, report } from "../../../testing/reports";
import { SupplyDrawing } from "./SupplyDrawing";
import { supplyLayout } from "./supplyLayout";

afterEach(cleanup);

function drawn(severity: "sound" | "tight" | "stops", litMargin: string | null = null) {
  const tree = report({
    nodes: [
      node("supply", null, 2),
      node("board", "supply", 2, { kind: "board", loads_a: [1], margins: ["m"] }),
      node("disk", "board", 1, { loads_a: [1] }),
    ],
    margins: [margin({ id: "m", severity_by_state: [severity], spare_by_state: [0.4] })],
  });
  const layout = supplyLayout(tree, 0, 640);
  return render(<SupplyDrawing layout={layout} stateLabel="Idle" litMargin={litMargin} />);
}

describe("the supply drawing", () => {
  it("has a name that tells the state", () => {
    drawn("sound");
    expect(screen.getByRole("img", { name: /Supply tree, Idle/ })).toBeTruthy();
  });

  it("writes volts and amperes at every node", () => {
    drawn("sound");
    expect(screen.getAllByText("5.00 V, 2.00 A")).toHaveLength(2);
    expect(screen.getByText("Processor and memory")).toBeTruthy();
  });

  it("hatches a lead where a limit is passed, and no other", () => {
    const hatched = (container: HTMLElement) =>
      [...container.querySelectorAll<SVGPathElement>("path.lead")].filter((lead) =>
        lead.style.stroke.startsWith("url("),
      ).length;
    expect(hatched(drawn("stops").container)).toBe(1);
    cleanup();
    expect(hatched(drawn("sound").container)).toBe(0);
  });

  it("brings out where the open snag is judged", () => {
    expect(drawn("stops", "m").container.querySelectorAll(".lead-glow")).toHaveLength(1);
    cleanup();
    expect(drawn("stops", "other").container.querySelectorAll(".lead-glow")).toHaveLength(0);
  });
});
