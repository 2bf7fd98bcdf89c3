import { Fragment, useState } from "react";
import Button from "react-bootstrap/Button";

import type { Report, Severity } from "../api/types";
import { requirementMark, requirementTally } from "../requirements/requirements";
import { Cobble } from "../ui/Cobble";
import { money } from "../ui/numbers";
import { Term } from "../ui/Term";
import { useBench } from "./bench";
import { ExportDialog } from "./ExportDialog";
import { HistoryPanel } from "./HistoryPanel";
import { KitLine } from "./KitLine";
import { KIT_ROLES } from "../ui/roles";

/** The worst of its needs; nothing asked is a note. */
function purposeMark(report: Report): Severity {
  if (report.purpose.length === 0) return "note";
  const order: Severity[] = ["problem", "tight", "note", "ok"];
  const marks = report.purpose.map((requirement) => requirementMark(requirement.status));
  return order.find((severity) => marks.includes(severity)) ?? "ok";
}

export function KitPanel() {
  const { report, view, openParts, family, setFamily, showDrawing } = useBench();
  const [exporting, setExporting] = useState(false);
  const [history, setHistory] = useState(false);
  return (
    <>
      <div className="panel-head">
        <h2>
          <Term of="kit">Kit</Term>
        </h2>
        <Button variant="link" onClick={() => setExporting(true)}>
          Export and print
        </Button>
        <Button variant="link" onClick={() => setHistory(true)}>
          History
        </Button>
        <span className="tabular">
          {money(report.cost.total, report.cost.currency)}
          {report.cost.unknown.length > 0 && " and more"}
        </span>
      </div>
      <ul className="kit-list">
        <li className="kit-line">
          <button
            type="button"
            className="btn-plain kit-main"
            aria-pressed={family === "purpose"}
            onClick={() => {
              setFamily("purpose");
              showDrawing();
            }}
          >
            <Cobble severity={purposeMark(report)} silent={report.purpose.length === 0} />
            <span className="role">Purpose</span>
            <span className="part">{view.plan.purpose}</span>
            {!view.plan.purpose && <span className="part soft">No purpose yet</span>}
            {report.purpose.length > 0 && (
              <span className="figure tabular">{requirementTally(report.purpose)}</span>
            )}
          </button>
        </li>
        {KIT_ROLES.map(({ role, label, needed, many }) => {
          const lines = report.lines.filter((line) => line.role === role);
          return (
            <Fragment key={role}>
              {(many || lines.length === 0) && (
                <li className={`kit-gap ${lines.length > 0 ? "has-lines" : ""}`}>
                  <span>
                    {label}
                    {needed && ": needed"}
                  </span>
                  <Button
                    variant=""
                    size="sm"
                    aria-label={`Add: ${label}`}
                    onClick={() => openParts(role, null)}
                  >
                    Add
                  </Button>
                </li>
              )}
              {lines.map((line) => (
                <KitLine key={line.id} line={line} label={many ? "" : label} />
              ))}
            </Fragment>
          );
        })}
      </ul>
      {history && <HistoryPanel onClose={() => setHistory(false)} />}
      {exporting && <ExportDialog onClose={() => setExporting(false)} />}
    </>
  );
}
