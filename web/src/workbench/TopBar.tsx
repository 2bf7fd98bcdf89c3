import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import { Link } from "react-router";

import { AS_PLANNED, type WhatIf } from "../api/queries";
import type { Activity, PlanView } from "../api/types";
import type { PlanChanges } from "../api/usePlanChanges";
import { figure } from "../ui/numbers";
import { readNumber } from "../ui/readNumber";
import { fromField, shownNow, shownUnit, shownValue, withSign } from "../ui/displayUnits";
import { ThemeSwitch } from "../ui/ThemeSwitch";

interface Props {
  view: PlanView;
  changes: PlanChanges;
  whatIf: WhatIf;
  onWhatIf: (whatIf: WhatIf) => void;
  onKeys: () => void;
}

const COLDEST = -20;
const HOTTEST = 70;

const ACTIVITIES: [Activity, string][] = [
  ["idle", "Idle"],
  ["light", "Light"],
  ["normal", "Normal"],
  ["full", "Full"],
];

export function TopBar({ view, changes, whatIf, onWhatIf, onKeys }: Props) {
  return (
    <header className="chrome">
      <Link to="/" className="brand">
        Cobblewort
      </Link>
      <nav className="crumbs" aria-label="Location">
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
      <WhatIfBar view={view} changes={changes} whatIf={whatIf} onWhatIf={onWhatIf} />
      <Button
        className="theme-switch keys-switch"
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

/** Another hottest day, another load: looked at without changing the plan. */
function WhatIfBar({ view, changes, whatIf, onWhatIf }: Omit<Props, "onKeys">) {
  const id = useId();
  const own = view.plan.place.ambient_max_c;
  const shown = whatIf.ambientC ?? own;
  const assumed = whatIf.ambientC !== null || whatIf.activity !== null;
  const keep = () => {
    changes.act({ kind: "adopt", whatIf });
    onWhatIf(AS_PLANNED);
  };
  return (
    <div className={`what-if ${assumed ? "assumed" : ""}`} role="group" aria-label="What if">
      <label htmlFor={`${id}-day`}>
        What if<span className="long">: highest ambient</span>
      </label>
      <input
        id={`${id}-day`}
        type="range"
        min={COLDEST}
        max={HOTTEST}
        value={shown}
        aria-valuetext={figure(shown, "°C")}
        onChange={(event) => {
          const value = Number(event.target.value);
          onWhatIf({ ...whatIf, ambientC: value === own ? null : value });
        }}
      />
      <AssumedDay
        key={`${shown} ${Object.values(shownNow()).join(" ")}`}
        shown={shown}
        onDay={(value) => onWhatIf({ ...whatIf, ambientC: value === own ? null : value })}
      />
      <label htmlFor={`${id}-work`} className="long">
        load
      </label>
      <select
        id={`${id}-work`}
        aria-label="Load to assume"
        value={whatIf.activity ?? ""}
        onChange={(event) => {
          const activity = (event.target.value || null) as Activity | null;
          onWhatIf({ ...whatIf, activity });
        }}
      >
        <option value="">As planned</option>
        {ACTIVITIES.map(([activity, label]) => (
          <option key={activity} value={activity}>
            {label} in every phase
          </option>
        ))}
      </select>
      {/* Their place is kept while they are not there, so that nothing moves under the pointer. */}
      <span className={`what-if-keep ${assumed ? "" : "away"}`}>
        <Button variant="" size="sm" onClick={keep}>
          <span className="long">Apply to plan</span>
          <span className="short">Apply</span>
        </Button>
        <Button variant="" size="sm" onClick={() => onWhatIf(AS_PLANNED)}>
          Reset
        </Button>
      </span>
    </div>
  );
}

/** The same day as a figure that can be typed; taken over on Enter, or when one goes on. */
function AssumedDay({ shown, onDay }: { shown: number; onDay: (value: number) => void }) {
  const asShown = withSign(String(Math.round(shownValue(shown, "°C") * 10) / 10));
  const [text, setText] = useState(asShown);
  const at = shownNow();
  const take = () => {
    const value = readNumber(fromField(text, "°C", at));
    if (value >= COLDEST && value <= HOTTEST && text !== asShown) onDay(value);
    else setText(asShown);
  };
  return (
    <span className="assumed-day">
      <input
        className="tabular"
        inputMode="decimal"
        aria-label={`Highest ambient to assume, ${shownUnit("°C")}`}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          if (event.key === "Enter") take();
          if (event.key === "Escape") setText(asShown);
        }}
      />{" "}
      {shownUnit("°C")}
    </span>
  );
}
