import { useQuery } from "@tanstack/react-query";
import { useId, useRef, useState } from "react";
import Form from "react-bootstrap/Form";
import Offcanvas from "react-bootstrap/Offcanvas";
import { Link } from "react-router";

import { ProblemError } from "../api/client";
import { candidatesQuery } from "../api/queries";
import type { Candidate, Role } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { change, money } from "../ui/numbers";
import { Failure, Loading } from "../ui/States";
import { useBench } from "./bench";
import { roleLabel } from "../ui/roles";
import { textOf } from "../ui/text";

interface Props {
  role: Role;
  /** The line whose part is to be swapped, or null for a new line. */
  line: string | null;
  onClose: () => void;
}

/** Candidates for a role, each judged in this plan, fewest snags first, then price. */
export function PartsDrawer({ role, line, onClose }: Props) {
  const { view, whatIf, changes, report } = useBench();
  const [search, setSearch] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const id = useId();
  const candidates = useQuery(candidatesQuery(view.id, view.version, whatIf, role, line));
  const wanted = search.trim().toLowerCase();
  const shown = (candidates.data ?? []).filter((entry) =>
    `${entry.maker} ${entry.name} ${entry.summary}`.toLowerCase().includes(wanted),
  );
  const [refused, setRefused] = useState("");
  const choose = async (candidate: Candidate) => {
    setRefused("");
    try {
      await changes.save(candidate.patch);
      onClose();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setRefused(error.message);
    }
  };
  const now = report.lines.find((entry) => entry.id === line);
  const sheetParams = new URLSearchParams({ plan: view.id, role, ...(line && { line }) });
  return (
    <Offcanvas
      show
      onHide={onClose}
      onEntered={() => field.current?.focus()}
      placement="start"
      className="catalogue"
      aria-labelledby={`${id}-title`}
    >
      <Offcanvas.Header closeButton>
        <Offcanvas.Title id={`${id}-title`} as="h2" className="fs-6">
          {now ? `${roleLabel(role)}: swap ${now.name}` : `${roleLabel(role)}: add a part`}
        </Offcanvas.Title>
      </Offcanvas.Header>
      <Offcanvas.Body>
        <div className="catalogue-search">
          <Form.Control
            type="search"
            placeholder="Name or value"
            aria-label="Search parts"
            value={search}
            ref={field}
            onChange={(event) => setSearch(event.target.value)}
          />
          <span className="soft">
            Each part is checked in this plan. Changes are relative to now.
          </span>
        </div>
        {refused && (
          <p role="alert" className="tone-problem">
            {refused}
          </p>
        )}
        {candidates.isPending && <Loading what="parts" />}
        {candidates.isError && !candidates.data && (
          <Failure error={candidates.error} retry={() => void candidates.refetch()} />
        )}
        {candidates.data && (
          <>
            <div className="candidate-head" aria-hidden>
              <span />
              <span />
              <span className="num">Current</span>
              <span className="num">Heat</span>
              <span className="num">{now ? "Cost change" : "Cost"}</span>
            </div>
            {shown.map((entry) => (
              <CandidateRow
                key={entry.part}
                candidate={entry}
                sheet={`/parts/${entry.part}?${sheetParams.toString()}`}
                onChoose={() => void choose(entry)}
              />
            ))}
            {shown.length === 0 && <p className="soft">No parts match “{search}”.</p>}
          </>
        )}
      </Offcanvas.Body>
    </Offcanvas>
  );
}

interface RowProps {
  candidate: Candidate;
  /** Address of its sheet, from which it can be copied and changed. */
  sheet: string;
  onChoose: () => void;
}

function CandidateRow({ candidate, sheet, onChoose }: RowProps) {
  const { effect } = candidate;
  const mark = candidate.reason.text ? "problem" : effect.tight > 0 ? "tight" : "ok";
  const resolves =
    !candidate.reason.text && effect.resolves > 0
      ? `fixes ${effect.resolves} snag${effect.resolves > 1 ? "s" : ""}`
      : "";
  const cost = change(Number(effect.cost_delta), candidate.currency);
  return (
    <div className="candidate-row">
      <button type="button" className="candidate" disabled={candidate.current} onClick={onChoose}>
        <Cobble severity={mark} />
        <span>
          <span className="name">{candidate.name}</span>{" "}
          <span className="soft">
            {candidate.maker}
            {candidate.origin === "custom" && ", custom"}
            {candidate.current && ", in this kit"}
          </span>{" "}
          {resolves && <span className="tone-ok">{resolves}</span>}
          <br />
          <span className="soft">
            {candidate.summary}
            {candidate.price !== null && `, ${money(candidate.price, candidate.currency)}`}
            {candidate.brings && `; adds ${candidate.brings}`}
          </span>
        </span>
        <span className="num tabular">{change(effect.source_delta_a, "A") || "–"}</span>
        <span className="num tabular">{change(effect.die_delta_k, "°C") || "–"}</span>
        <span className="num tabular">{cost || "–"}</span>
        {candidate.reason.text && <span className="reason">{textOf(candidate.reason)}</span>}
      </button>
      <Link className="candidate-sheet" to={sheet} aria-label={`Part sheet of ${candidate.name}`}>
        {" "}
        Part sheet
      </Link>
    </div>
  );
}
