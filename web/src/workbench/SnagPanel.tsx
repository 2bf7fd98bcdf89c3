import { useQuery } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { Link } from "react-router";

import { fixesQuery } from "../api/queries";
import type { Finding, Fix, Margin } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { bandText, change, figure, severityWord } from "../ui/numbers";
import { focusSoon } from "../ui/focusSoon";
import { Term } from "../ui/Term";
import { useBench } from "./bench";
import { NextStep } from "./NextStep";
import { textOf } from "../ui/text";

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
          <span>No problems found.</span>
        </div>
      )}
      <div className="snag-scroll">
        <ul className="snag-list">
          {report.findings.map((finding) => (
            <Snag key={finding.id} finding={finding} />
          ))}
        </ul>
        <Aside
          heading="Take care"
          findings={report.aside.filter((finding) => finding.family === "safety")}
        />
        <Aside
          heading="Needed for set-up"
          findings={report.aside.filter((finding) => finding.family !== "safety")}
        />
        {report.done.length > 0 && <Settled />}
      </div>
      <NextStep />
    </>
  );
}

/** What every kit of its kind has to mind: not a snag of this one. */
function Aside({ heading, findings }: { heading: string; findings: Finding[] }) {
  if (findings.length === 0) return null;
  return (
    <section className="aside-notes" aria-label={heading}>
      <h3>{heading}</h3>
      <ul>
        {findings.map((finding) => (
          <li key={finding.id}>{textOf(finding.sentence)}</li>
        ))}
      </ul>
    </section>
  );
}

/** Reminders that were ticked: put away, and brought back from here. */
function Settled() {
  const { report, view, changes } = useBench();
  const bringBack = (finding: Finding) =>
    changes.act({
      kind: "patch",
      patch: [{ op: "set", fields: { done: view.plan.done.filter((id) => id !== finding.id) } }],
      label: `reopen ${finding.rule}`,
    });
  return (
    <details className="settled">
      <summary>{report.done.length} marked as done</summary>
      <ul>
        {report.done.map((finding) => (
          <li key={finding.id}>
            {textOf(finding.sentence)}{" "}
            <Button variant="link" disabled={changes.busy} onClick={() => bringBack(finding)}>
              Reopen
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
    [count("problem"), "problem"],
    [count("tight"), "tight"],
    [count("note"), "note"],
  ];
  return parts
    .filter(([n]) => n > 0)
    .map(([n, word]) => `${n} ${n > 1 && word !== "tight" ? `${word}s` : word}`)
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
        <span className="sentence">{textOf(finding.sentence)}</span>
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
      label: `mark ${finding.rule} as done`,
    });
    setOpenSnag(null);
    focusSoon(".snag-main", ".all-clear");
  };
  return (
    <Button variant="" size="sm" disabled={changes.busy} onClick={settle}>
      Mark as done
    </Button>
  );
}

function Facts({ finding, margin }: { finding: Finding; margin: Margin | undefined }) {
  const { openWorking } = useBench();
  return (
    <div className="snag-facts tabular">
      {margin && (
        <p>
          {textOf(margin.label)}: {figure(margin.value, margin.unit)}
          {margin.limit_kind === "max" ? ", at most " : ", at least "}
          {figure(margin.limit, margin.unit)}.
          {bandText(margin) && ` Likely range of the spare: ${bandText(margin)}.`}
          {margin.holds_share !== null &&
            margin.spare < 0 &&
            ` OK in ${Math.floor(100 * margin.holds_share + 1e-9)} of 100 likely cases.`}{" "}
          <Button variant="link" onClick={() => openWorking(margin.id)}>
            Show the working
          </Button>
        </p>
      )}
      <p>
        Source: {finding.source}.{" "}
        <Link to={`/rules#${finding.rule}`} className="text-nowrap">
          Rule {finding.rule}
        </Link>
      </p>
    </div>
  );
}

function Fixes({ finding }: { finding: Finding }) {
  const { view, whatIf } = useBench();
  const fixes = useQuery(fixesQuery(view.id, view.version, whatIf, finding.id));
  if (fixes.isPending) return <p className="soft">Testing fixes…</p>;
  if (fixes.isError) return <p className="tone-problem">{fixes.error.message}</p>;
  if (fixes.data.length === 0)
    return <p className="soft">No single change fixes this without causing another problem.</p>;
  return (
    <>
      {fixes.data.map((fix) => (
        <FixButton key={fix.title.text} fix={fix} finding={finding} />
      ))}
    </>
  );
}

/** A fix: pressed once it shows its effect on the margins, and then it can be applied. */
function FixButton({ fix, finding }: { fix: Fix; finding: Finding }) {
  const { changes, report, preview, setPreview, setOpenSnag } = useBench();
  const open = preview?.finding === finding.id && preview.fix.title.text === fix.title.text;
  const apply = () => {
    changes.act({ kind: "patch", patch: fix.patch, label: fix.title.text.slice(0, 200) }, () => {
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
        <span className="what">{textOf(fix.title)}</span>
        <span className="effect tabular">
          {effects(fix, finding, report.cost.currency).map((text) => (
            <span key={text}>{text}</span>
          ))}
        </span>
      </button>
      {open && (
        <div className="fix-more">
          {fix.breaks.map((sentence) => (
            <p key={sentence.text} className="tone-tight">
              {" "}
              {textOf(sentence)}
            </p>
          ))}
          {fix.worsens.map((sentence) => (
            <p key={sentence.text} className="tone-tight">
              {" "}
              Gets worse: {textOf(sentence)}
            </p>
          ))}
          <p className="soft">The margins show before and after.</p>
          <Button variant="primary" size="sm" autoFocus disabled={changes.busy} onClick={apply}>
            Apply
          </Button>{" "}
          <Button variant="" size="sm" onClick={leave}>
            Cancel
          </Button>
        </div>
      )}
    </div>
  );
}

/** `costs €12`, `saves €23`. */
function costText(delta: number, currency: string): string {
  const amount = change(Math.abs(delta), currency).replace("+", "");
  return amount && `${delta < 0 ? "saves" : "costs"} ${amount}`;
}

function effects(fix: Fix, finding: Finding, currency: string): string[] {
  const { effect, becomes } = fix;
  const texts = [
    becomes &&
    Math.abs(becomes.after - becomes.before) > 0.005 * Math.max(1, Math.abs(becomes.before))
      ? `${figure(becomes.before, becomes.unit)} → ${figure(becomes.after, becomes.unit)}`
      : "",
    costText(Number(effect.cost_delta), currency),
    change(effect.source_delta_w, "W"),
    becomes?.unit === "°C" ? "" : change(effect.die_delta_k, "°C"),
    fix.resolves.includes(finding.id) ? "" : "reduces it",
    fix.resolves.length > 1 ? `fixes ${fix.resolves.length} snags` : "",
    fix.breaks.length > 0
      ? `causes ${fix.breaks.length} new snag${fix.breaks.length > 1 ? "s" : ""}`
      : "",
    fix.worsens.length > 0 ? `makes ${fix.worsens.length} worse` : "",
  ].filter(Boolean);
  return texts.length ? texts : ["no extra cost"];
}
