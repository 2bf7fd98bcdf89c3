import { afterEach, describe, expect, it } from "vitest";

import type { CriterionId, CriterionView, PartView, Role, SuggestedKit } from "../api/types";
import { setShown } from "../ui/displayUnits";
import {
  criterionText,
  differences,
  extentOf,
  inOrder,
  isWithin,
  limitFrom,
  askable,
  makersIn,
  partsIn,
  partsOf,
  requirable,
  withOthers,
} from "./kits";

const PRICE: CriterionView = {
  id: "price",
  label: "Price",
  unit: "",
  more: false,
  help: "",
  usual: true,
};
const MARGIN: CriterionView = {
  id: "margin",
  label: "Tightest margin",
  unit: "",
  more: true,
  help: "",
  usual: true,
};
const NOISE: CriterionView = {
  id: "noise",
  label: "Noise",
  unit: "dB(A)",
  more: false,
  help: "",
  usual: true,
};

function kit(
  values: Partial<Record<CriterionId, number>>,
  parts: [Role, string, number][] = [],
): SuggestedKit {
  return {
    parts: parts.map(([role, name, quantity]) => ({
      role,
      name,
      quantity,
      part: name,
      maker: `Maker of ${name}`,
      owned: false,
    })),
    figures: Object.entries(values).map(([criterion, value]) => ({
      criterion: criterion as CriterionId,
      value,
      text: { text: String(value), parts: [String(value)] },
    })),
    tight: [],
    stays: 1,
    plan: {} as SuggestedKit["plan"],
  };
}

describe("suggested kits", () => {
  const cheap = kit({ price: 59, margin: 0.2 }, [["board", "Stile", 1]]);
  const roomy = kit({ price: 80, margin: 0.5 }, [
    ["board", "Hurdle 2", 1],
    ["storage", "Drum 1T", 2],
  ]);

  it("tells each figure in its unit", () => {
    expect(criterionText(PRICE, 59, "EUR")).toBe("€59");
    expect(criterionText(MARGIN, 0.26, "EUR")).toBe("26\u00a0%");
    expect(criterionText(MARGIN, -0.5, "EUR")).toBe("−50\u00a0%");
    expect(criterionText(NOISE, 27, "EUR")).toBe("27\u00a0dB(A)");
  });

  it("keeps to limits, of which some are least values", () => {
    const criteria = [PRICE, MARGIN];
    expect(isWithin(cheap, criteria, {})).toBe(true);
    expect(isWithin(cheap, criteria, { price: 59 })).toBe(true);
    expect(isWithin(cheap, criteria, { price: 58 })).toBe(false);
    expect(isWithin(cheap, criteria, { margin: 0.21 })).toBe(false);
    expect(isWithin(roomy, criteria, { margin: 0.5 })).toBe(true);
    expect(extentOf([cheap, roomy], "price")).toEqual([59, 80]);
  });

  it("sorts both ways, the first of two that are alike first", () => {
    const twin = kit({ price: 59, margin: 0.3 });
    const places = (down: boolean) =>
      inOrder([cheap, roomy, twin], { by: "price", down }).map(([, place]) => place);
    expect(places(false)).toEqual([0, 2, 1]);
    expect(places(true)).toEqual([1, 0, 2]);
  });

  it("tells in which roles kits differ", () => {
    expect(partsOf(roomy, "storage")).toBe("2 Drum 1T");
    expect(differences([cheap, roomy])).toEqual([
      { role: "board", cells: ["Stile", "Hurdle 2"] },
      { role: "storage", cells: ["", "2 Drum 1T"] },
    ]);
    expect(differences([cheap, cheap])).toEqual([]);
  });
});

it("parts of all kits are told once, in the order of the roles", () => {
  const one = kit({}, [
    ["case", "E01", 1],
    ["board", "B04", 1],
  ]);
  const other = kit({}, [
    ["board", "B04", 1],
    ["board", "B06", 1],
  ]);
  expect(partsIn([one, other]).map((part) => part.part)).toEqual(["B04", "B06", "E01"]);
});

it("parts that can be required have a role of which a kit holds one", () => {
  const part = (id: string, kind: string, origin = "shipped") =>
    ({ id, model: id, kind, origin }) as PartView;
  const parts = [
    part("c", "case"),
    part("b", "board"),
    part("x", "device"),
    part("t", "board", "typical"),
  ];
  expect(requirable(parts).map((one) => [one.role, one.part])).toEqual([
    ["board", "b"],
    ["case", "c"],
  ]);
});

it("makers are told once, by name", () => {
  const one = kit({}, [
    ["case", "E01", 1],
    ["board", "B04", 1],
  ]);
  expect(makersIn([one, one])).toEqual(["Maker of B04", "Maker of E01"]);
});

it("one asks why of what a kit can be made of, by kind", () => {
  const part = (id: string, kind: string, origin = "shipped") =>
    ({ id, model: id, kind, origin }) as PartView;
  const parts = [
    part("b", "board"),
    part("t", "tool"),
    part("x", "device"),
    part("any", "board", "typical"),
    part("c", "board", "custom"),
  ];
  expect(askable(parts).map(([kind, some]) => [kind, some.map((one) => one.id)])).toEqual([
    ["board", ["b", "c"]],
    ["device", ["x"]],
  ]);
});

it("the drawing reaches as far as what lies near, and no further", () => {
  expect(withOthers([10, 20], [8, 24, 26, 4])).toEqual([8, 24]);
  expect(withOthers([100, 100], [104, 106])).toEqual([100, 104]);
  expect(withOthers([1, 2], [])).toEqual([1, 2]);
});

describe("a limit that is typed", () => {
  afterEach(() => setShown({ temperature: "C", length: "mm", decimal: "point" }));

  it("is in percent for a margin, in the unit of the reader else", () => {
    expect(limitFrom(MARGIN, "12.5 %")).toBe(0.125);
    expect(limitFrom(NOISE, "27")).toBe(27);
    expect(limitFrom(PRICE, "€97.50")).toBe(97.5);
    expect(limitFrom(PRICE, "cheap")).toBeNaN();
    const headroom = { id: "headroom", unit: "°C" } as const;
    expect(limitFrom(headroom, "10 °C")).toBe(10);
    setShown({ temperature: "F", length: "mm", decimal: "point" });
    expect(limitFrom(headroom, "18 °F")).toBe(10);
    expect(criterionText(headroom, 10, "EUR")).toBe("18\u00a0°F");
  });
});
