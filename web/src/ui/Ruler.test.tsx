import { cleanup, render } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";

import { Ruler } from "./Ruler";

afterEach(cleanup);

const SIZE = { width: 90, height: 24 };

/** The bar itself: the first rectangle that is neither hatching nor an outline. */
function bar(container: HTMLElement): Element | null {
  return container.querySelector("svg > rect:not([fill=none])");
}

describe("a ruler", () => {
  it("runs solid to the right where something is spare", () => {
    const { container } = render(<Ruler share={0.5} severity="ok" {...SIZE} />);
    expect(bar(container)?.getAttribute("x")).toBe("30");
    expect(bar(container)?.getAttribute("fill")).toBe("var(--ok-fill)");
  });

  it("runs hatched to the left where something is short", () => {
    const { container } = render(<Ruler share={-0.25} severity="problem" {...SIZE} />);
    expect(bar(container)?.getAttribute("x")).toBe("15");
    expect(bar(container)?.getAttribute("fill")).toMatch(/^url\(#/);
    expect(container.querySelector("pattern")).not.toBeNull();
  });

  it("draws only the limit line where nothing is judged", () => {
    const { container } = render(<Ruler share={null} severity="note" {...SIZE} />);
    expect(bar(container)).toBeNull();
    expect(container.querySelectorAll("line")).toHaveLength(1);
  });

  it("keeps its limit line from top to bottom, so that stacked rulers share one", () => {
    const { container } = render(<Ruler share={0.5} severity="ok" {...SIZE} />);
    const line = container.querySelector("line");
    expect([line?.getAttribute("y1"), line?.getAttribute("y2")]).toEqual(["0", "24"]);
  });

  it("outlines where it stood before, and only if it moved", () => {
    const moved = render(<Ruler share={0.5} before={-0.5} severity="ok" {...SIZE} />);
    expect(moved.container.querySelector("rect[fill=none]")?.getAttribute("x")).toBe("0");
    const still = render(<Ruler share={0.5} before={0.5} severity="ok" {...SIZE} />);
    expect(still.container.querySelector("rect[fill=none]")).toBeNull();
  });

  it("is passed over by screen readers, as its figure stands beside it", () => {
    const { container } = render(<Ruler share={0.5} severity="ok" {...SIZE} />);
    expect(container.querySelector("svg")?.getAttribute("aria-hidden")).toBe("true");
  });
});
