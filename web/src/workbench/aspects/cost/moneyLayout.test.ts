import { describe, expect, it } from "vitest";

import type { Report } from "../../../api/types";
import { report } from "../../../testing/reports";
import { moneyLayout } from "./moneyLayout";

function priced(prices: (string | null)[], budget: string | null): Report {
  const base = report({});
  const total = prices.reduce((sum, price) => sum + Number(price ?? 0), 0);
  return {
    ...base,
    lines: prices.map((_, index) => ({ id: `l${index}`, name: `Part ${index}`, quantity: 1 })),
    cost: {
      ...base.cost,
      budget,
      total: String(total),
      lines: prices.map((to_pay, index) => ({ line: `l${index}`, to_pay, value: to_pay })),
    },
  } as unknown as Report;
}

describe("the money", () => {
  it("steps from part to part, the dearest first, to the sum", () => {
    const layout = moneyLayout(priced(["10", "30", null, "0"], null));
    expect(layout?.steps.map((step) => step.name)).toEqual(["Part 1", "Part 0"]);
    const [first, second] = layout?.steps ?? [];
    expect((first?.x ?? 0) + (first?.width ?? 0)).toBeCloseTo(second?.x ?? -1, 0);
    expect((first?.width ?? 0) / (second?.width ?? 1)).toBeCloseTo(3, 1);
    expect((second?.x ?? 0) + (second?.width ?? 0)).toBeCloseTo(
      (layout?.total.x ?? 0) + (layout?.total.width ?? 0),
      0,
    );
  });

  it("marks what lies beyond the budget, and only that", () => {
    const layout = moneyLayout(priced(["30", "10"], "35"));
    expect(layout?.steps.map((step) => step.over > 0)).toEqual([false, true]);
    expect(layout?.total.over).toBeCloseTo(layout?.steps[1]?.over ?? -1, 0);
    expect(moneyLayout(priced(["30"], "35"))?.total.over).toBe(0);
  });

  it("has nothing to draw of what is owned", () => {
    expect(moneyLayout(priced(["0", null], "10"))).toBeNull();
  });
});
