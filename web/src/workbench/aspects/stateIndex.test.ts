import { expect, test } from "vitest";
import { margin, report, ruler } from "../../testing/reports";
import { stateIndex } from "./stateIndex";

const states = [
  { id: "idle", label: "Idle" },
  { id: "phase-1", label: "work" },
  { id: "phase-2", label: "work" },
];

test("two phases of one name are told apart", () => {
  const checked = report({ margins: [margin({ id: "m", state: "phase-2" })] });
  checked.families = [ruler({ id: "power", margin: "m" })];
  expect(stateIndex(checked, "power", states, null)).toBe(2);
  expect(stateIndex(checked, "power", states, "phase-1")).toBe(1);
  expect(stateIndex(checked, "heat", states, null)).toBe(0);
});
