import { useState } from "react";
import Button from "react-bootstrap/Button";

import type { Report, Wired } from "../../../api/types";
import { Fields } from "../../../ui/Fields";
import { InlineForm } from "../../../ui/InlineForm";
import { withSign } from "../../../ui/displayUnits";
import { useBench } from "../../bench";
import { EMPTY, namesFor, ROWS, wiredFrom, type WiredText } from "./wired";

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
          <Fields
            refused={wrong}
            rows={ROWS}
            names={namesFor(text)}
            text={text}
            setText={setText}
            instead={{ pin: freePins(header.pins) }}
          />
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

/** The pins that are free, to choose from. */
function freePins(pins: Header["pins"]) {
  const free = pins.filter((pin) => pin.state === "free");
  const choices = Object.fromEntries(free.map((pin) => [pin.number, `${pin.number}, ${pin.name}`]));
  return { choices };
}

function resistorText(worked: Header["wired"][number] | undefined, entry: Wired): string {
  if (!worked || entry.kind === "button") return "";
  if (worked.why) return `, ${worked.why}`;
  const current = `${withSign(worked.current_ma.toFixed(1))} mA`;
  if (worked.resistor_ohm === null) return `, built-in resistor, ${current}`;
  return `, through ${worked.resistor_ohm} Ω, ${current}`;
}
