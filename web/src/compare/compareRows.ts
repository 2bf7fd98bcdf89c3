/** Two to four plans held beside each other: figures and kits, row by row. Pure. */
import { requirementTally } from "../requirements/requirements";
import type { LineReport, Report } from "../api/types";
import { figure, money, severityWord } from "../ui/numbers";
import { KIT_ROLES } from "../ui/roles";

export interface SideRow {
  id: string;
  label: string;
  cells: string[];
  differs: boolean;
}

/** Verdict, price, watts and heat of each plan. */
export function factRows(reports: Report[]): SideRow[] {
  const rows: [string, string, (report: Report) => string][] = [
    ["verdict", "Result", verdict],
    [
      "purpose",
      "Purpose",
      (r) => (r.purpose.length > 0 ? requirementTally(r.purpose) : "no requirements"),
    ],
    ["cost", "To buy", (r) => money(r.cost.total, r.cost.currency)],
    ["watts", "Peak power from the power supply", (r) => heaviest(r)],
    [
      "ambient",
      "OK up to",
      (r) => (r.heat.hottest_ambient_c === null ? "–" : figure(r.heat.hottest_ambient_c, "°C")),
    ],
  ];
  return rows.map(([id, label, tell]) => row(id, label, reports.map(tell)));
}

function verdict(report: Report): string {
  const problems = report.findings.filter((finding) => finding.severity === "problem").length;
  const tight = report.findings.filter((finding) => finding.severity === "tight").length;
  const counts = [
    problems > 0 && `${problems} problem${problems > 1 ? "s" : ""}`,
    tight > 0 && `${tight} tight`,
  ].filter(Boolean);
  return counts.length > 0 ? counts.join(", ") : severityWord(report.severity);
}

function heaviest(report: Report): string {
  const watts = Math.max(0, ...report.power.source_w);
  return watts > 0 ? figure(watts, "W") : "–";
}

/** The kit by role: what stands in each plan, and where they differ. */
export function kitRows(reports: Report[]): SideRow[] {
  return KIT_ROLES.map(({ role, label }) =>
    row(
      role,
      label,
      reports.map((report) => parts(report.lines.filter((line) => line.role === role))),
    ),
  ).filter((entry) => entry.cells.some((cell) => cell !== "–"));
}

function parts(lines: LineReport[]): string {
  const names = lines.map((line) =>
    line.quantity > 1 ? `${line.quantity} × ${line.name}` : line.name,
  );
  return names.length > 0 ? names.sort().join(", ") : "–";
}

function row(id: string, label: string, cells: string[]): SideRow {
  return { id, label, cells, differs: new Set(cells).size > 1 };
}

export const MOST_PLANS = 4;

/** The plans named in an address, each once and no more than there is room for. */
export function idsOf(address: string | undefined): string[] {
  const ids = (address ?? "").split(",").filter(Boolean);
  return [...new Set(ids)].slice(0, MOST_PLANS);
}
