import { describe, expect, it } from "vitest";

import { rulerLayout, rulerX } from "./rulerLayout";

describe("a ruler", () => {
  it("has its limit a third along", () => {
    expect(rulerX(0, 90)).toBe(30);
    expect(rulerX(-0.5, 90)).toBe(0);
    expect(rulerX(1, 90)).toBe(90);
  });

  it("clips what lies beyond its ends", () => {
    expect(rulerX(-3, 90)).toBe(0);
    expect(rulerX(7, 90)).toBe(90);
  });

  it("runs spare to the right of the limit and short to the left", () => {
    expect(rulerLayout(0.5, null, null, 90).bar).toEqual({ x: 30, width: 30 });
    expect(rulerLayout(-0.25, null, null, 90).bar).toEqual({ x: 15, width: 15 });
  });

  it("is never thinner than a pixel, so that nothing spare can be seen", () => {
    expect(rulerLayout(0, null, null, 90).bar.width).toBe(1);
  });

  it("has a whisker only where the band is wide enough to be seen", () => {
    expect(rulerLayout(0.5, 0.4, 0.6, 90).whisker).toEqual({ from: 54, to: 66 });
    expect(rulerLayout(0.5, 0.499, 0.501, 90).whisker).toBeNull();
    expect(rulerLayout(0.5, null, null, 90).whisker).toBeNull();
  });
});
