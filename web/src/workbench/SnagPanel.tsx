import { useQuery } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { Link } from "react-router";

import { fixesQuery } from "../api/queries";
import type { Finding, Fix, Margin } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { bandText, change, figure, percent, severityWord } from "../ui/numbers";
import { focusSoon } from "../ui/focusSoon";
import { Term } from "../ui/Term";
import { useBench } from "./bench";
import { NextStep } from "./NextStep";

export function SnagPanel() {
  const { report } = useBench();
  return (
    <>
      <div className="panel-head">
        <h2>
          <Term of="snag">Snags</Term>
        </h2>
        <span className="soft">{tally(report.findings)}</span>
      </div>
      {report.findings.every((finding) => finding.severity === "note") && (
        <div className="all-clear" tabIndex={-1}>
          <Cobble severity="ok" size={20} silent />
          <span>Nothing is known to stand in the way.</span>
        </div>
      )}
      {report.findings.length > 0 && (
        <ul className="snag-list">
          {report.findings.map((finding) => (
            <Snag key={finding.id} finding={finding} />
          ))}
        </ul>
      )}
      {report.done.length > 0 && <Settled />}
      <NextStep />
    </>
  );
}

/** Reminders that were ticked: put away, and brought back from here. */
function Settled() {
  const { report, view, changes } = useBench();
  const bringBack = (finding: Finding) =>
    changes.act({
      kind: "patch",
      patch: [{ op: "set", fields: { done: view.plan.done.filter((id) => id !== finding.id) } }],
      label: `bring back ${finding.rule}`,
    });
  return (
    <details className="settled">
      <summary>{report.done.length} settled</summary>
      <ul>
        {report.done.map((finding) => (
          <li key={finding.id}>
            {finding.sentence}{" "}
            <Button variant="link" disabled={changes.busy} onClick={() => bringBack(finding)}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

function tally(findings: Finding[]): string {
  const count = (severity: string) => findings.filter((f) => f.severity === severity).length;
  const parts: [number, string][] = [
    [count("problem"), "stops it"],
    [count("tight"), "tight"],
    [count("note"), "note"],
  ];
  return parts
    .filter(([n]) => n > 0)
    .map(
      ([n, word]) =>
        `${n} ${n > 1 && word === "stops it" ? "stop it" : n > 1 && word === "note" ? "notes" : word}`,
    )
    .join(", ");
}

function Snag({ finding }: { finding: Finding }) {
  const { openSnag, setOpenSnag, report } = useBench();
  const open = openSnag === finding.id;
  const toggle = () => setOpenSnag(open ? null : finding.id);
  const margin = report.margins.find((entry) => entry.id === finding.margin);
  return (
    <li
      className={`snag ${open ? "open" : ""}`}
      style={{ "--snag-tone": `var(--${finding.severity})` } as React.CSSProperties}
    >
      <button type="button" className="btn-plain snag-main" aria-expanded={open} onClick={toggle}>
        <Cobble severity={finding.severity} silent />
        <span>
          <span className="word">{severityWord(finding.severity)}</span>{" "}
          <span className="rule">{finding.rule}</span>
        </span>
        <span className="sentence">{finding.sentence}</span>
      </button>
      {open && (
        <div className="snag-more">
          {finding.has_fixes && <Fixes finding={finding} />}
          {finding.severity === "note" && <Tick finding={finding} />}
          <Facts finding={finding} margin={margin} />
        </div>
      )}
    </li>
  );
}

/** Says that a reminder is settled; it is put away until it is brought back. */
function Tick({ finding }: { finding: Finding }) {
  const { view, changes, setOpenSnag } = useBench();
  const settle = () => {
    const done = [...view.plan.done.filter((id) => id !== finding.id), finding.id];
    changes.act({
      kind: "patch",
      patch: [{ op: "set", fields: { done } }],
      label: `settle ${finding.rule}`,
    });
    setOpenSnag(null);
    focusSoon(".snag-main", ".all-clear");
  };
  return (
    <Button variant="" size="sm" disabled={changes.busy} onClick={settle}>
      That is settled
    </Button>
  );
}

function Facts({ finding, margin }: { finding: Finding; margin: Margin | undefined }) {
  const { openWorking } = useBench();
  return (
    <div className="snag-facts tabular">
      {margin && (
        <p>
          {margin.label}: {figure(margin.value, margin.unit)}
          {margin.limit_kind === "max" ? " of at most " : ", at least "}
          {figure(margin.limit, margin.unit)}.
          {bandText(margin) && ` Spare most likely ${bandText(margin)}.`}
          {margin.holds_share !== null &&
            margin.spare < 0 &&
            ` Holds with ${percent(margin.holds_share)} of the likely figures.`}{" "}
          <Button variant="link" onClick={() => openWorking(margin.id)}>
            Whole working
          </Button>
        </p>
      )}
      <p>
        Source: {finding.source}. <Link to={`/rules#${finding.rule}`}>Rule {finding.rule}</Link>
      </p>
    </div>
  );
}

function Fixes({ finding }: { finding: Finding }) {
  const { view, whatIf } = useBench();
  const fixes = useQuery(fixesQuery(view.id, view.version, whatIf, finding.id));
  if (fixes.isPending) return <p className="soft">Trying what would help…</p>;
  if (fixes.isError) return <p className="tone-problem">{fixes.error.message}</p>;
  if (fixes.data.length === 0)
    return <p className="soft">No single change with these parts helps without breaking more.</p>;
  return (
    <>
      {fixes.data.map((fix) => (
        <FixButton key={fix.title} fix={fix} finding={finding} />
      ))}
    </>
  );
}

/** A way out: pressed once it shows its effect on the rulers, and then it can be done. */
function FixButton({ fix, finding }: { fix: Fix; finding: Finding }) {
  const { changes, report, preview, setPreview, setOpenSnag } = useBench();
  const open = preview?.finding === finding.id && preview.fix.title === fix.title;
  const apply = () => {
    changes.act({ kind: "patch", patch: fix.patch, label: fix.title }, () => {
      setOpenSnag(null);
      focusSoon(".snag-main", ".all-clear");
    });
  };
  const leave = () => {
    setPreview(null);
    focusSoon(".snag.open .fix-main");
  };
  return (
    <div className={`fix ${open ? "previewed" : ""}`}>
      <button
        type="button"
        className="btn-plain fix-main"
        aria-expanded={open}
        onClick={() => setPreview(open ? null : { finding: finding.id, fix })}
      >
        <span className="what">{fix.title}</span>
        <span className="effect tabular">
          {effects(fix, finding, report.cost.currency).map((text) => (
            <span key={text}>{text}</span>
          ))}
        </span>
      </button>
      {open && (
        <div className="fix-more">
          {fix.breaks.map((sentence) => (
            <p key={sentence} className="tone-tight">
              {sentence}
            </p>
          ))}
          {fix.worsens.map((sentence) => (
            <p key={sentence} className="tone-tight">
              Gets worse: {sentence}
            </p>
          ))}
          <p className="soft">The rulers show before and after.</p>
          <Button variant="primary" size="sm" autoFocus disabled={changes.busy} onClick={apply}>
            Do it
          </Button>{" "}
          <Button variant="" size="sm" onClick={leave}>
            Leave it
          </Button>
        </div>
      )}
    </div>
  );
}

function effects(fix: Fix, finding: Finding, currency: string): string[] {
  const { effect, becomes } = fix;
  const texts = [
    becomes &&
    Math.abs(becomes.after - becomes.before) > 0.005 * Math.max(1, Math.abs(becomes.before))
      ? `${figure(becomes.before, becomes.unit)} → ${figure(becomes.after, becomes.unit)}`
      : "",
    change(Number(effect.cost_delta), currency),
    change(effect.source_delta_w, "W"),
    becomes?.unit === "°C" ? "" : change(effect.die_delta_k, "°C"),
    fix.resolves.includes(finding.id) ? "" : "only softens it",
    fix.resolves.length > 1 ? `settles ${fix.resolves.length} snags` : "",
    fix.breaks.length > 0 ? `brings ${fix.breaks.length} new` : "",
    fix.worsens.length > 0 ? `makes ${fix.worsens.length} worse` : "",
  ].filter(Boolean);
  return texts.length ? texts : ["costs nothing"];
}
