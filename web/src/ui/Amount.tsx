import Form from "react-bootstrap/Form";

import { FigureInput } from "./FigureInput";
import { shownUnit } from "./displayUnits";

interface Props {
  id: string;
  label: string;
  unit: string;
  value: string;
  placeholder?: string;
  onChange: (value: string) => void;
}

/** A figure with its unit beside it, as it is typed. */
export function Amount({ id, label, unit, value, placeholder, onChange }: Props) {
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <div className="with-unit">
        <FigureInput
          size="sm"
          className="tabular"
          inputMode="text"
          placeholder={placeholder}
          unit={unit}
          value={value}
          onChange={onChange}
        />
        <span className="unit">{shownUnit(unit)}</span>
      </div>
    </Form.Group>
  );
}
