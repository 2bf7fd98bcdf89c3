import { Fragment, useEffect, useId, type ReactNode } from "react";
import Form from "react-bootstrap/Form";

import { shownUnit } from "./displayUnits";
import { FigureInput } from "./FigureInput";
import { wrongIn, type FieldRow, type FieldRows, type FieldText } from "./fieldText";
import { focusSoon } from "./focusSoon";
import { NamedFigures } from "./NamedFigures";
import { Options } from "./Options";

interface Props<N extends string> {
  rows: FieldRows<N>;
  names: readonly N[];
  text: FieldText<N>;
  setText: (text: FieldText<N>) => void;
  /** Other units, choices or words than those of the row. */
  instead?: Partial<Record<N, Partial<FieldRow>>>;
  disabled?: boolean;
  /** Small ones stand in line with other things, large ones in a dialog. */
  size?: "sm" | "lg";
  /** The field in which a dialog begins. */
  first?: N;
  /** Why the form was not taken, in a sentence; what is wrong in it is marked and has the focus. */
  refused?: string;
}

/** The fields of a form as the table describes them: a label, what is typed or chosen, its unit. */
export function Fields<N extends string>(props: Props<N>) {
  const { rows, names, text, setText, instead, disabled = false, size = "sm", first } = props;
  const { refused = "" } = props;
  const id = useId();
  useEffect(() => {
    if (refused) focusSoon(".field [aria-invalid=true]");
  }, [refused]);
  return names.map((name) => (
    <Fragment key={name}>
      <OneField
        id={`${id}-${name}`}
        row={{ ...rows[name], ...instead?.[name] }}
        value={text[name]}
        onChange={(value) => setText({ ...text, [name]: value })}
        disabled={disabled}
        size={size === "sm" ? size : undefined}
        autoFocus={name === first}
        isInvalid={refused !== "" && wrongIn(rows[name], text[name]) !== ""}
      />
    </Fragment>
  ));
}

interface OneProps {
  id: string;
  row: FieldRow;
  value: string | boolean;
  onChange: (value: string | boolean) => void;
  disabled: boolean;
  size: "sm" | undefined;
  autoFocus: boolean;
  isInvalid: boolean;
}

function OneField({ id, row, value, onChange, disabled, size, autoFocus, isInvalid }: OneProps) {
  if (typeof value === "boolean")
    return (
      <Form.Check
        id={id}
        label={row.hint ? `${row.label} (${row.hint})` : row.label}
        checked={value}
        disabled={disabled}
        onChange={(event) => onChange(event.target.checked)}
      />
    );
  const typed = {
    size,
    value,
    disabled,
    autoFocus,
    isInvalid,
    "aria-invalid": isInvalid || undefined,
    placeholder: row.empty || undefined,
    maxLength: row.longest ?? undefined,
  };
  const put = (event: { target: { value: string } }) => onChange(event.target.value);
  return (
    <Labelled
      id={id}
      row={row}
      beside={
        Object.keys(row.named).length > 0 && (
          <NamedFigures
            label={row.label}
            named={row.named}
            value={value}
            onChange={onChange}
            size={size}
            disabled={disabled}
          />
        )
      }
    >
      {row.control === "choice" ? (
        <Form.Select
          size={size}
          value={value}
          disabled={disabled}
          isInvalid={isInvalid}
          aria-invalid={isInvalid || undefined}
          onChange={put}
        >
          {(row.is_optional || value === "") && <option value="">{row.empty || "Choose"}</option>}
          <Options of={row.choices} />
        </Form.Select>
      ) : row.control === "number" && row.unit ? (
        <FigureInput
          {...typed}
          className="tabular"
          inputMode="text"
          unit={row.unit}
          onChange={onChange}
        />
      ) : row.control === "lines" ? (
        <Form.Control {...typed} as="textarea" rows={3} onChange={put} />
      ) : (
        <Form.Control
          {...typed}
          inputMode={row.control === "text" || row.control === "list" ? undefined : "decimal"}
          onChange={put}
        />
      )}
    </Labelled>
  );
}

interface LabelledProps {
  id: string;
  row: FieldRow;
  beside: ReactNode;
  children: ReactNode;
}

function Labelled({ id, row, beside, children }: LabelledProps) {
  return (
    <Form.Group controlId={id} className="field">
      <Form.Label>{row.label}</Form.Label>
      <div className="with-unit">
        {children}
        {row.unit && <span className="unit">{shownUnit(row.unit)}</span>}
      </div>
      {beside}
    </Form.Group>
  );
}
