import Button from "react-bootstrap/Button";
import type { ReactNode } from "react";

interface Props {
  states: { id: string; label: string }[];
  /** Index of the state that is drawn. */
  current: number;
  onChoose: (id: string) => void;
  /** What stands at the right: the figure that tells most about the state. */
  children: ReactNode;
}

/** The states of a kit as a row of buttons above a drawing. */
export function StateSwitch({ states, current, onChoose, children }: Props) {
  return (
    <div className="aspect-bar" role="group" aria-label="State">
      <span className="lead-word">State</span>
      {states.map((entry, index) => (
        <Button
          key={entry.id}
          variant=""
          size="sm"
          aria-pressed={index === current}
          onClick={() => onChoose(entry.id)}
        >
          {entry.label.replace(" (mean)", "")}
        </Button>
      ))}
      <span className="right tabular">{children}</span>
    </div>
  );
}
