import { expect, test } from "vitest";
import { margin, report, ruler } from "../../testing/reports";
import { stateIndex } from "./stateIndex";

const states = [
  { id: "idle", label: "Idle" },
  { id: "phase-1", label: "work" },
  { id: "phase-2", label: "work" },
];

test("two phases of one name are told apart", () => {
  const judged = report({ margins: [margin({ id: "m", state: "phase-2" })] });
  judged.families = [ruler({ id: "supply", margin: "m" })];
  expect(stateIndex(judged, "supply", states, null)).toBe(2);
  expect(stateIndex(judged, "supply", states, "phase-1")).toBe(1);
  expect(stateIndex(judged, "heat", states, null)).toBe(0);
});
