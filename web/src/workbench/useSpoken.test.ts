import { expect, test } from "vitest";

import type { Report } from "../api/types";
import { changedVerdicts } from "./useSpoken";

function judged(severities: Record<string, string>): Report {
  const families = Object.entries(severities).map(([id, severity]) => ({
    id,
    label: id,
    severity,
  }));
  return { families } as unknown as Report;
}

test("only verdicts that changed are read out", () => {
  const before = judged({ Fit: "ok", Power: "ok", Heat: "tight" });
  expect(changedVerdicts(before, judged({ Fit: "ok", Power: "problem", Heat: "ok" }))).toBe(
    "Power: Problem. Heat: OK.",
  );
  expect(changedVerdicts(before, before)).toBe("");
});
