import Form from "react-bootstrap/Form";

import { readNumber } from "./readNumber";
import { Options } from "./Options";

interface Props {
  /** What is chosen, for who does not see the field beside it. */
  label: string;
  named: Readonly<Record<string, string>>;
  value: string;
  onChange: (figure: string) => void;
  size?: "sm";
  disabled?: boolean;
}

/** Figures by their words, beside the field that takes any. */
export function NamedFigures({ label, named, value, onChange, size, disabled }: Props) {
  const chosen = Object.keys(named).find((figure) => Number(figure) === readNumber(value));
  return (
    <Form.Select
      className="named-figures"
      size={size}
      aria-label={`${label} by region`}
      value={chosen ?? ""}
      disabled={disabled}
      onChange={(event) => onChange(event.target.value)}
    >
      <option value="">{value.trim() === "" ? "Not stated" : "Other"}</option>
      <Options of={named} />
    </Form.Select>
  );
}
