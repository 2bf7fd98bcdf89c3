import Button from "react-bootstrap/Button";

import { shownUnit, toField } from "./displayUnits";
import type { Typed } from "./typed";

interface Props<T extends object> {
  typed: Typed<T>;
  labels: Record<keyof T, string>;
  /** The server's units of fields that have one. */
  units?: Partial<Record<keyof T, string>>;
}

/** What was changed elsewhere while somebody typed: beside what they typed, to keep or to take. */
export function Meanwhile<T extends object>({ typed, labels, units = {} }: Props<T>) {
  if (typed.clashes.length === 0 && typed.taken.length === 0) return null;
  return (
    <div className="meanwhile" role="status">
      <strong>Changed in another tab</strong>
      <ul>
        {typed.clashes.map((key) => (
          <li key={String(key)}>
            {labels[key]}: saved value <strong>{shown(typed.base[key], units[key])}</strong>, your
            value <strong>{shown(typed.text[key], units[key])}</strong>.{" "}
            <Button variant="" size="sm" onClick={() => typed.take(key)}>
              Use the saved value
            </Button>
          </li>
        ))}
        {typed.taken.map((key) => (
          <li key={String(key)}>
            {labels[key]}: saved value used, <strong>{shown(typed.base[key], units[key])}</strong>.
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
  return unit === undefined ? text : `${toField(text, unit)} ${shownUnit(unit)}`;
}
