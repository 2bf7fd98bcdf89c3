import { money } from "../ui/numbers";
import { FAMILIES } from "../api/labels";
import { useBench } from "./bench";

export type Pane = "margins" | "kit" | "drawing" | "snags";

interface Props {
  pane: Pane;
  onPane: (pane: Pane) => void;
}

/** Where there is room for one thing only: a bar in reach of the thumb that switches between four. */
export function PhoneBar({ pane, onPane }: Props) {
  const { report, family } = useBench();
  const past = report.families.filter(
    (entry) => (entry.spare ?? 0) < 0 && ["problem", "tight"].includes(entry.severity),
  );
  const short = past.length;
  const problems = report.findings.filter((entry) => entry.severity === "problem").length;
  const tight = report.findings.filter((entry) => entry.severity === "tight").length;
  const tabs: { id: Pane; label: string; told: string; bad: boolean }[] = [
    {
      id: "margins",
      label: "Margins",
      told: short ? `${short} short` : "OK",
      bad: past.some((entry) => entry.severity === "problem"),
    },
    { id: "kit", label: "Kit", told: money(report.cost.total, report.cost.currency), bad: false },
    { id: "drawing", label: "Drawing", told: FAMILIES[family], bad: false },
    {
      id: "snags",
      label: "Snags",
      told: problems ? `${problems} problems` : tight ? `${tight} tight` : "none",
      bad: problems > 0,
    },
  ];
  return (
    <nav className="phone-bar" aria-label="Sections of the workbench">
      {tabs.map((tab) => (
        <button
          key={tab.id}
          type="button"
          className="btn-plain"
          aria-pressed={pane === tab.id}
          onClick={() => onPane(tab.id)}
        >
          <strong>{tab.label}</strong>
          <span className={tab.bad ? "tone-problem" : "soft"}>{tab.told}</span>
        </button>
      ))}
    </nav>
  );
}
