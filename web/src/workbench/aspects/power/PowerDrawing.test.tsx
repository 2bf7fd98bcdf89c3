import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";

import { margin, node, report } from "../../../testing/reports";
import { PowerDrawing } from "./PowerDrawing";
import { powerLayout } from "./powerLayout";

afterEach(cleanup);

function drawn(severity: "ok" | "tight" | "problem", litMargin: string | null = null) {
  const tree = report({
    nodes: [
      node("power_supply", null, 2),
      node("board", "power_supply", 2, { kind: "board", loads_a: [1], margins: ["m"] }),
      node("disk", "board", 1, { loads_a: [1] }),
    ],
    margins: [margin({ id: "m", severity_by_state: [severity], spare_by_state: [0.4] })],
  });
  const layout = powerLayout(tree, 0, 640);
  return render(<PowerDrawing layout={layout} stateLabel="Idle" litMargin={litMargin} />);
}

describe("the supply drawing", () => {
  it("has a name that tells the state", () => {
    drawn("ok");
    expect(screen.getByRole("img", { name: /Power tree, Idle/ })).toBeTruthy();
  });

  it("writes volts and amperes at every node", () => {
    drawn("ok");
    expect(screen.getAllByText("5.00 V, 2.00 A")).toHaveLength(2);
    expect(screen.getByText("Processor and memory")).toBeTruthy();
  });

  it("hatches a lead where a limit is passed, and no other", () => {
    const hatched = (container: HTMLElement) =>
      [...container.querySelectorAll<SVGPathElement>("path.lead")].filter((cable) =>
        cable.style.stroke.startsWith("url("),
      ).length;
    expect(hatched(drawn("problem").container)).toBe(1);
    cleanup();
    expect(hatched(drawn("ok").container)).toBe(0);
  });

  it("brings out where the open snag is judged", () => {
    expect(drawn("problem", "m").container.querySelectorAll(".lead-glow")).toHaveLength(1);
    cleanup();
    expect(drawn("problem", "other").container.querySelectorAll(".lead-glow")).toHaveLength(0);
  });
});
