import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import { requirementKindsQuery } from "../api/queries";
import type { Requirement } from "../api/types";
import { FigureInput } from "../ui/FigureInput";
import { shownUnit } from "../ui/displayUnits";
import { requirementFrom } from "./requirements";

interface Props {
  taken: string[];
  /** Takes the need, and says when it is in: only then is the form empty again. */
  onAdd: (requirement: Requirement, added: () => void) => void;
}

const EMPTY = { choice: "", text: "", figure: "", rate: "" };

/** Asks for one more thing, in words of one's own and as what is looked for. */
export function RequirementForm({ taken, onAdd }: Props) {
  const id = useId();
  const kinds = useQuery(requirementKindsQuery);
  const [typed, setTyped] = useState(EMPTY);
  const [wrong, setWrong] = useState("");
  const list = kinds.data ?? [];
  const chosen = list.find((kind) => `${kind.kind}:${kind.id}` === typed.choice);
  const add = () => {
    const read = requirementFrom(typed, list, taken);
    if ("wrong" in read) {
      setWrong(read.wrong);
      return;
    }
    setWrong("");
    onAdd(read.requirement, () => setTyped(EMPTY));
  };
  const groups: [string, string][] = [
    ["function", "Functions"],
    ["condition", "Conditions"],
    ["limit", "Limits"],
  ];
  return (
    <div className="need-form">
      <Form.Select
        size="sm"
        aria-label="Add a requirement"
        value={typed.choice}
        onChange={(event) => setTyped({ ...typed, choice: event.target.value })}
      >
        <option value="">Add a requirement…</option>
        {groups.map(([kind, label]) => (
          <optgroup key={kind} label={label}>
            {list
              .filter((entry) => entry.kind === kind)
              .map((entry) => (
                <option key={entry.id} value={`${entry.kind}:${entry.id}`}>
                  {entry.label}
                </option>
              ))}
          </optgroup>
        ))}
      </Form.Select>
      {chosen && (
        <>
          {chosen.wants && (
            <div className="with-unit">
              <FigureInput
                size="sm"
                className="tabular"
                aria-label={chosen.wants === "count" ? "Count" : "Value"}
                placeholder={chosen.wants === "count" ? "1" : "value"}
                unit={chosen.unit}
                value={typed.figure}
                onChange={(figure) => setTyped({ ...typed, figure })}
              />
              <span className="unit">{shownUnit(chosen.unit) || "times"}</span>
            </div>
          )}
          {chosen.rate_unit && (
            <div className="with-unit">
              <Form.Control
                size="sm"
                className="tabular"
                inputMode="decimal"
                aria-label="Rate"
                placeholder="rate"
                value={typed.rate}
                onChange={(event) => setTyped({ ...typed, rate: event.target.value })}
              />
              <span className="unit">{chosen.rate_unit}</span>
            </div>
          )}
          <Form.Control
            size="sm"
            id={`${id}-text`}
            aria-label="Your own words"
            placeholder="your own words (optional)"
            maxLength={200}
            value={typed.text}
            onChange={(event) => setTyped({ ...typed, text: event.target.value })}
            onKeyDown={(event) => {
              if (event.key !== "Enter") return;
              event.preventDefault();
              add();
            }}
          />
          <Button variant="" size="sm" onClick={add}>
            Add requirement
          </Button>
        </>
      )}
      {wrong && (
        <p role="alert" className="field-wrong">
          {wrong}
        </p>
      )}
    </div>
  );
}
