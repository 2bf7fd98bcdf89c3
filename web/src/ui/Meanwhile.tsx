import Button from "react-bootstrap/Button";

import { shownUnit, toField } from "./displayUnits";
import type { Typed } from "./typed";

interface Props<T extends object> {
  typed: Typed<T>;
  /** What the fields are called, and the server's units of those that have one. */
  rows: Record<keyof T, { label: string; unit?: string }>;
}

/** What was changed elsewhere while somebody typed: beside what they typed, to keep or to take. */
export function Meanwhile<T extends object>({ typed, rows }: Props<T>) {
  if (typed.clashes.length === 0 && typed.taken.length === 0) return null;
  return (
    <div className="meanwhile" role="status">
      <strong>Changed in another tab</strong>
      <ul>
        {typed.clashes.map((key) => (
          <li key={String(key)}>
            {rows[key].label}: saved value <strong>{shown(typed.base[key], rows[key].unit)}</strong>
            , your value <strong>{shown(typed.text[key], rows[key].unit)}</strong>.{" "}
            <Button variant="" size="sm" onClick={() => typed.take(key)}>
              Use the saved value
            </Button>
          </li>
        ))}
        {typed.taken.map((key) => (
          <li key={String(key)}>
            {rows[key].label}: saved value used,{" "}
            <strong>{shown(typed.base[key], rows[key].unit)}</strong>.
          </li>
        ))}
      </ul>
    </div>
  );
}

function shown(value: unknown, unit?: string): string {
  if (value === true) return "yes";
  if (value === false) return "no";
  const text = typeof value === "object" && value && "text" in value ? value.text : value;
  if (typeof text !== "string" || text === "") return "empty";
  return !unit ? text : `${toField(text, unit)} ${shownUnit(unit)}`;
}
