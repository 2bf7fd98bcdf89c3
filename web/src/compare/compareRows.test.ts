import { expect, test } from "vitest";

import type { LineReport } from "../api/types";
import { report } from "../testing/reports";
import { factRows, idsOf, kitRows } from "./compareRows";

const line = (role: string, name: string, quantity = 1): LineReport =>
  ({ id: name, role, name, quantity }) as LineReport;

test("kits stand role by role, and differing roles are marked", () => {
  const one = { ...report({}), lines: [line("board", "Hurdle 2"), line("storage", "Drum 1T", 2)] };
  const two = { ...report({}), lines: [line("board", "Hurdle 2"), line("case", "Shut 86")] };
  const rows = kitRows([one, two]);
  expect(rows.map((row) => [row.label, row.cells, row.differs])).toEqual([
    ["Board", ["Hurdle 2", "Hurdle 2"], false],
    ["Storage", ["2 × Drum 1T", "–"], true],
    ["Case", ["–", "Shut 86"], true],
  ]);
});

test("the order of lines makes no difference", () => {
  const one = { ...report({}), lines: [line("add_on", "a"), line("add_on", "b")] };
  const two = { ...report({}), lines: [line("add_on", "b"), line("add_on", "a")] };
  expect(kitRows([one, two])[0]?.differs).toBe(false);
});

test("verdict, purpose and price of each", () => {
  const rows = factRows([report({}), report({})]);
  expect(rows.map((row) => row.label)).toContain("To buy");
  expect(rows.find((row) => row.id === "purpose")?.cells).toEqual([
    "no requirements",
    "no requirements",
  ]);
  expect(rows.find((row) => row.id === "verdict")?.cells[0]).toBe("OK");
});

test("an address names at most four plans, each once", () => {
  expect(idsOf("a,b,a,,c,d,e")).toEqual(["a", "b", "c", "d"]);
  expect(idsOf(undefined)).toEqual([]);
});
