import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import type { Report, Wired } from "../../../api/types";
import { Amount } from "../../../ui/Amount";
import { InlineForm } from "../../../ui/InlineForm";
import { withSign } from "../../../ui/displayUnits";
import { useBench } from "../../bench";
import { EMPTY, wiredFrom, type WiredText } from "./wired";

type Header = Report["fit"]["header"];

/** Buttons and LEDs that are wired to the header by hand. */
export function WiredList({ header }: { header: Header }) {
  const { view, changes } = useBench();
  const [text, setText] = useState<WiredText | null>(null);
  const [wrong, setWrong] = useState("");
  const wired = view.plan.wired;
  const worked = new Map(header.wired.map((entry) => [entry.id, entry]));
  const store = (next: Wired[], label: string, onDone?: () => void) =>
    changes.act({ kind: "patch", patch: [{ op: "set", fields: { wired: next } }], label }, onDone);
  const add = () => {
    if (!text) return;
    const found = wiredFrom(text, new Set(wired.map((entry) => entry.id)));
    if ("wrong" in found) {
      setWrong(found.wrong);
      return;
    }
    setWrong("");
    store([...wired, found], `wire ${found.label}`, () => setText(null));
  };
  return (
    <>
      <h3 className="view-head">Buttons and LEDs</h3>
      {wired.length > 0 && (
        <ul className="wired-list">
          {wired.map((entry) => (
            <li key={entry.id}>
              <strong>{entry.label}</strong>
              <span className="tabular">
                {entry.kind === "led" ? "LED" : "button"} on pin {entry.pin}
                {resistorText(worked.get(entry.id), entry)}
              </span>
              <Button
                variant="link"
                aria-label={`Remove ${entry.label}`}
                onClick={() =>
                  store(
                    wired.filter((other) => other !== entry),
                    `without ${entry.label}`,
                  )
                }
              >
                Remove
              </Button>
            </li>
          ))}
        </ul>
      )}
      {text ? (
        <InlineForm
          done="Add"
          busy={changes.busy}
          wrong={wrong}
          onDone={add}
          onLeave={() => setText(null)}
        >
          <Fields text={text} setText={setText} pins={header.pins} />
        </InlineForm>
      ) : (
        <Button
          variant=""
          size="sm"
          className="wire-it"
          onClick={() => {
            setWrong("");
            setText(EMPTY);
          }}
        >
          Add a button or LED
        </Button>
      )}
    </>
  );
}

interface FieldProps {
  text: WiredText;
  setText: (text: WiredText) => void;
  pins: Header["pins"];
}

function Fields({ text, setText, pins }: FieldProps) {
  const put = (change: Partial<WiredText>) => setText({ ...text, ...change });
  return (
    <>
      <Form.Group controlId="wired-kind">
        <Form.Label>Type</Form.Label>
        <Form.Select
          size="sm"
          value={text.kind}
          onChange={(event) => put({ kind: event.target.value as WiredText["kind"] })}
        >
          <option value="led">LED</option>
          <option value="button">Button</option>
        </Form.Select>
      </Form.Group>
      <Form.Group controlId="wired-label">
        <Form.Label>Name</Form.Label>
        <Form.Control
          size="sm"
          maxLength={60}
          value={text.label}
          onChange={(event) => put({ label: event.target.value })}
        />
      </Form.Group>
      <Form.Group controlId="wired-pin">
        <Form.Label>Pin</Form.Label>
        <Form.Select
          size="sm"
          value={text.pin}
          onChange={(event) => put({ pin: event.target.value })}
        >
          <option value="">choose</option>
          {pins
            .filter((pin) => pin.state === "free")
            .map((pin) => (
              <option key={pin.number} value={pin.number}>
                {pin.number}, {pin.name}
              </option>
            ))}
        </Form.Select>
      </Form.Group>
      {text.kind === "led" && (
        <>
          <Amount
            id="wired-forward"
            label="Forward voltage"
            unit="V"
            value={text.forwardV}
            onChange={(forwardV) => put({ forwardV })}
          />
          <Amount
            id="wired-current"
            label="Current"
            unit="mA"
            value={text.currentMa}
            onChange={(currentMa) => put({ currentMa })}
          />
          <Amount
            id="wired-made"
            label="Supply voltage on its label"
            unit="V"
            value={text.madeForV}
            onChange={(madeForV) => put({ madeForV })}
          />
        </>
      )}
    </>
  );
}

function resistorText(worked: Header["wired"][number] | undefined, entry: Wired): string {
  if (!worked || entry.kind === "button") return "";
  if (worked.why) return `, ${worked.why}`;
  const current = `${withSign(worked.current_ma.toFixed(1))} mA`;
  if (worked.resistor_ohm === null) return `, built-in resistor, ${current}`;
  return `, through ${worked.resistor_ohm} Ω, ${current}`;
}
