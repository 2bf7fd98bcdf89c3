import { useId } from "react";
import Button from "react-bootstrap/Button";
import { Link } from "react-router";

import type { PlanView } from "../api/types";
import type { PlanChanges } from "../api/usePlanChanges";
import { ThemeSwitch } from "../ui/ThemeSwitch";

interface Props {
  view: PlanView;
  changes: PlanChanges;
  ambientC: number | null;
  onAmbient: (ambientC: number | null) => void;
  onKeys: () => void;
}

export function TopBar({ view, changes, ambientC, onAmbient, onKeys }: Props) {
  const id = useId();
  const own = view.plan.place?.ambient_max_c ?? 28;
  const shown = ambientC ?? own;
  const keep = () => {
    const place = { ...view.plan.place, ambient_max_c: shown };
    place.ambient_min_c = Math.min(place.ambient_min_c ?? shown, shown);
    changes.act({
      kind: "patch",
      patch: [{ op: "set", fields: { place } }],
      label: `hottest day ${shown} °C`,
    });
    onAmbient(null);
  };
  return (
    <header className="chrome">
      <Link to="/" className="brand">
        Cobblewort
      </Link>
      <nav className="crumbs" aria-label="Where you are">
        <Link to="/">Plans</Link> / <strong>{view.plan.name}</strong>
      </nav>
      <Button
        variant=""
        size="sm"
        disabled={!view.undo_label || changes.busy}
        title={view.undo_label ? `Undo: ${view.undo_label}` : "Nothing to undo"}
        onClick={() => changes.act({ kind: "undo" })}
      >
        Undo
      </Button>
      <Button
        variant=""
        size="sm"
        disabled={!view.redo_label || changes.busy}
        title={view.redo_label ? `Redo: ${view.redo_label}` : "Nothing to redo"}
        onClick={() => changes.act({ kind: "redo" })}
      >
        Redo
      </Button>
      <div className="what-if" role="group" aria-label="What if">
        <label htmlFor={id}>What if the hottest day is</label>
        <input
          id={id}
          type="range"
          min={-20}
          max={70}
          value={shown}
          onChange={(event) => {
            const value = Number(event.target.value);
            onAmbient(value === own ? null : value);
          }}
        />
        <output htmlFor={id} className="tabular">
          {shown} °C
        </output>
        {ambientC !== null && (
          <>
            <Button variant="" size="sm" onClick={keep}>
              Make this the plan’s
            </Button>
            <Button variant="" size="sm" onClick={() => onAmbient(null)}>
              Back to {own} °C
            </Button>
          </>
        )}
      </div>
      <Button
        className="theme-switch"
        variant=""
        size="sm"
        onClick={onKeys}
        aria-label="Keys"
        title="Keys (?)"
      >
        ?
      </Button>
      <ThemeSwitch />
    </header>
  );
}
