import { useQuery } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";

import { partsQuery } from "../api/queries";
import type { Change, LineReport } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { money } from "../ui/numbers";
import { litLines, useBench } from "./bench";
import { roleLabel } from "./roles";

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
          {line.name}
          {line.owned && <span className="own-tag">own</span>}
        </span>
        <span className="figure tabular">{line.figure}</span>
      </button>
      {chosen && <LineTools line={line} />}
    </li>
  );
}

function LineTools({ line }: { line: LineReport }) {
  const { changes, openCupboard, report } = useBench();
  const parts = useQuery(partsQuery);
  const fromClass = parts.data?.find((part) => part.id === line.part)?.class_figures.length ?? 0;
  const edit = (change: Change) => changes.act({ kind: "patch", patch: [change] });
  const price = line.value === null ? "price not known" : money(line.value, report.cost.currency);
  return (
    <div className="kit-tools">
      <span className="summary">
        {line.maker}. {line.summary}. {price}.
        {fromClass > 0 && ` ${fromClass} of its figures are class figures, not its maker’s.`}
      </span>
      <Button
        variant=""
        size="sm"
        onClick={() => openCupboard(line.role as Parameters<typeof openCupboard>[0], line.id)}
      >
        Swap
      </Button>
      <Button
        variant=""
        size="sm"
        aria-pressed={line.owned}
        onClick={() => edit({ op: "edit", line: line.id, owned: !line.owned, quantity: null })}
      >
        {line.owned ? "Not owned after all" : "I own it"}
      </Button>
      <Button
        variant=""
        size="sm"
        aria-label="One fewer"
        disabled={line.quantity <= 1}
        onClick={() =>
          edit({ op: "edit", line: line.id, quantity: line.quantity - 1, owned: null })
        }
      >
        −
      </Button>
      <span className="count tabular" aria-label={`${line.quantity} pieces`}>
        {line.quantity}
      </span>
      <Button
        variant=""
        size="sm"
        aria-label="One more"
        onClick={() =>
          edit({ op: "edit", line: line.id, quantity: line.quantity + 1, owned: null })
        }
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
