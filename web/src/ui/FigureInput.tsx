import { useEffect, useRef, useState, type ComponentProps } from "react";
import Form from "react-bootstrap/Form";

import { client, dataOf, ProblemError } from "../api/client";
import { readNumber } from "./readNumber";
import { asTyped, fromField, shownNow, toField } from "./displayUnits";

type Props = Omit<ComponentProps<typeof Form.Control>, "onChange" | "value"> & {
  value: string;
  unit: string;
  onChange: (text: string) => void;
};

/** A figure that may be typed with a unit of one's own, `500 mA` or `1/2 in`: it is brought to the
 * unit of the field when it is left, or on Enter. `value` and `unit` are the server's; what stands in
 * the field is in the unit that is shown. */
export function FigureInput({ value, unit, onChange, ...rest }: Props) {
  const [wrong, setWrong] = useState("");
  // What is typed in other fields while a figure is read stays: whoever takes it is asked anew.
  const latest = useRef({ value, onChange });
  useEffect(() => {
    latest.current = { value, onChange };
  });
  // What is read is read in the units that stand beside it, those of this drawing of the form.
  const at = shownNow();
  // Letter by letter as typed, as long as the form holds what came of it and shows the same units.
  const [typed, setTyped] = useState({ text: "", held: "", at });
  const isOurs = typed.held === value && typed.text !== "" && typed.at === at;
  const text = isOurs ? typed.text : toField(value, unit);
  // What does not begin like a figure is left to the form that it stands in.
  const plain = !/^\s*[-+−]?\d/.test(value) || !Number.isNaN(readNumber(value));
  const read = async () => {
    if (plain) return;
    try {
      const query = { text: asTyped(value, unit, at), unit };
      const found = dataOf(await client.GET("/api/read-figure", { params: { query } }));
      setWrong("");
      if (latest.current.value === value) latest.current.onChange(String(found.value));
    } catch (error) {
      const told = error instanceof ProblemError ? error.problem.problems[0]?.text : null;
      setWrong(told ?? "This could not be read now; write it as a plain number.");
    }
  };
  return (
    <>
      <Form.Control
        {...rest}
        aria-invalid={wrong !== "" || rest.isInvalid === true || undefined}
        value={text}
        onChange={(event) => {
          setWrong("");
          const held = fromField(event.target.value, unit, at);
          setTyped({ text: event.target.value, held, at });
          onChange(held);
        }}
        onBlur={() => void read()}
        onKeyDown={(event) => {
          if (event.key !== "Enter" || plain) return;
          event.preventDefault();
          void read();
        }}
      />
      {wrong && (
        <span role="alert" className="field-wrong figure-wrong">
          {wrong}
        </span>
      )}
    </>
  );
}
