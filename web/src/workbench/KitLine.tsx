import { useQuery } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { Link } from "react-router";

import { HELD_BY } from "../api/labels";
import { partsQuery } from "../api/queries";
import type { Change, LineReport } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { money } from "../ui/numbers";
import { litLines, useBench } from "./bench";
import { roleLabel } from "../ui/roles";
import { textOf } from "../ui/text";
import { Options } from "../ui/Options";

interface Props {
  line: LineReport;
  /** The role, on the first of its lines. */
  label: string;
}

export function KitLine({ line, label }: Props) {
  const bench = useBench();
  const chosen = bench.chosenLine === line.id;
  const lit = litLines(bench).has(line.id);
  return (
    <li className={`kit-line ${chosen ? "chosen" : ""} ${lit ? "lit" : ""}`}>
      <button
        type="button"
        className={`btn-plain kit-main ${label ? "" : "single"}`}
        aria-expanded={chosen}
        onClick={() => bench.setChosenLine(chosen ? null : line.id)}
      >
        <Cobble severity={line.severity} />
        {label && <span className="role">{label}</span>}
        <span className="part">
          {line.quantity > 1 && `${line.quantity} × `}
          {line.short_name}
          {line.owned && <span className="own-tag">owned</span>}
          {line.spare && <span className="own-tag">spare</span>}
        </span>
        {line.changed.length > 0 ? (
          <span className="figure tone-tight">newer values</span>
        ) : (
          <span className="figure tabular">{textOf(line.figure)}</span>
        )}
      </button>
      {chosen && <LineTools line={line} />}
    </li>
  );
}

type Edit = Extract<Change, { op: "edit" }>;

function editOf(line: string, what: Partial<Edit>): Edit {
  return { op: "edit", line, quantity: null, owned: null, part_revision: null, ...what };
}

function LineTools({ line }: { line: LineReport }) {
  const { changes, openParts, report, view } = useBench();
  const parts = useQuery(partsQuery);
  const fromClass = parts.data?.find((part) => part.id === line.part)?.class_figures.length ?? 0;
  const planned = view.plan.lines.find((entry) => entry.id === line.id);
  const edit = (change: Change) => changes.act({ kind: "patch", patch: [change] });
  const worth = report.cost.lines.find((cost) => cost.line === line.id)?.value;
  const price = worth ? money(worth, report.cost.currency) : "No price";
  return (
    <div className="kit-tools">
      <span className="summary">
        {line.summary && `${line.summary}. `}Maker: {line.maker}. {price}.
        {fromClass > 0 &&
          ` ${fromClass} ${fromClass === 1 ? "value is a typical value" : "values are typical values"}.`}{" "}
        <Link to={`/parts/${line.part}?plan=${view.id}&line=${line.id}`}>Part sheet</Link>
      </span>
      {line.changed.length > 0 && (
        <div className="line-changed">
          The part has newer values: {line.changed.join("; ")}. The plan uses the earlier values.{" "}
          <Button
            variant=""
            size="sm"
            onClick={() => edit(editOf(line.id, { part_revision: line.newest_revision }))}
          >
            Use the newer values
          </Button>
        </div>
      )}
      <Button variant="" size="sm" onClick={() => openParts(line.role, line.id)}>
        Swap
      </Button>
      <Button
        variant=""
        size="sm"
        aria-pressed={line.owned}
        onClick={() => edit(editOf(line.id, { owned: !line.owned }))}
      >
        {line.owned ? "I do not own it" : "I own it"}
      </Button>
      <Button
        variant=""
        size="sm"
        aria-pressed={line.spare}
        title="A spare is bought and kept in the drawer. Nothing is calculated with it."
        onClick={() => edit(editOf(line.id, { spare: !line.spare }))}
      >
        {line.spare ? "Use it again" : "Mark as spare"}
      </Button>
      {line.role === "case" && (
        <Button
          variant=""
          size="sm"
          aria-pressed={planned?.modified ?? false}
          onClick={() => edit(editOf(line.id, { modified: !planned?.modified }))}
        >
          {planned?.modified ? "I do not cut it by hand" : "I cut it by hand"}
        </Button>
      )}
      {line.role === "case" && (
        <label className="held-by">
          Board held by{" "}
          <Form.Select
            size="sm"
            value={planned?.held_by ?? "screws"}
            onChange={(event) =>
              edit(editOf(line.id, { held_by: event.target.value as keyof typeof HELD_BY }))
            }
          >
            <Options of={HELD_BY} />
          </Form.Select>
        </label>
      )}
      {planned?.sheets_off && (
        <Button variant="" size="sm" onClick={() => edit(editOf(line.id, { sheets_off: false }))}>
          Fit the top sheets again
        </Button>
      )}
      {planned?.standoff_mm != null && (
        <Button variant="" size="sm" onClick={() => edit(editOf(line.id, { standoff_mm: 0 }))}>
          Remove the {planned.standoff_mm} mm standoffs
        </Button>
      )}
      <Button
        variant=""
        size="sm"
        aria-label="One less"
        disabled={line.quantity <= 1}
        onClick={() => edit(editOf(line.id, { quantity: line.quantity - 1 }))}
      >
        −
      </Button>
      <span className="count tabular" aria-label={`${line.quantity} items`}>
        {line.quantity}
      </span>
      <Button
        variant=""
        size="sm"
        aria-label="One more"
        onClick={() => edit(editOf(line.id, { quantity: line.quantity + 1 }))}
      >
        +
      </Button>
      <Button
        variant=""
        size="sm"
        aria-label={`Remove ${line.name} (${roleLabel(line.role)})`}
        onClick={() => edit({ op: "remove", line: line.id })}
      >
        Remove
      </Button>
    </div>
  );
}
