import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import { FIELDS, POWER_SOURCES } from "../../../api/labels";
import type { Plan, Report } from "../../../api/types";
import { NamedFigures } from "../../../ui/NamedFigures";
import { figure } from "../../../ui/numbers";
import { useWidth } from "../../../ui/useWidth";
import { openMargin, useBench } from "../../bench";
import { stateIndex } from "../stateIndex";
import { StateSwitch } from "../StateSwitch";
import { powerDown } from "./powerDown";
import { PowerDrawing } from "./PowerDrawing";
import { powerLayout } from "./powerLayout";
import { Options } from "../../../ui/Options";

/** In less room than this the tree runs downwards. [px] */
const NARROW = 460;

/** The tree in the state that is worst, until another is chosen. */
export function PowerView() {
  const bench = useBench();
  const { report } = bench;
  const { power } = report;
  const [chosen, setChosen] = useState<string | null>(null);
  const [frame, width] = useWidth(640);
  if (power.nodes.length === 0)
    return <p className="soft pt-3">Nothing to draw yet. Add a power supply and a board.</p>;
  const state = stateIndex(report, "power", report.power.states, chosen);
  const stateLabel = power.states[state]?.label ?? "";
  return (
    <>
      <StateSwitch states={power.states} current={state} onChoose={setChosen}>
        from the power supply <strong>{figure(power.source_w[state] ?? 0, "W")}</strong>
      </StateSwitch>
      <div className="drawing-scroll" ref={frame}>
        {power.collapsed[state] ? (
          <p className="tone-problem">
            The voltage collapses in this state. Choose a stronger power supply.
          </p>
        ) : (
          <PowerDrawing
            layout={(width < NARROW ? powerDown : powerLayout)(report, state, width)}
            stateLabel={stateLabel}
            litMargin={openMargin(bench)}
          />
        )}
      </div>
      <SourceChoice />
      <PowerTable report={report} state={state} />
    </>
  );
}

/** What feeds the kit at its location: another one is one press away, and can be undone. */
function SourceChoice() {
  const { view, changes } = useBench();
  const id = useId();
  const { power: has, latitude_deg: latitude } = view.plan.place;
  const { label, named, empty } = FIELDS.place.latitude_deg;
  const choose = (place: Partial<Plan["place"]>) =>
    changes.act({ kind: "patch", patch: [{ op: "set", fields: { place } }] });
  return (
    <div className="source-choice">
      <label htmlFor={id}>
        Power source at the location
        <Form.Select
          id={id}
          size="sm"
          value={has}
          disabled={changes.busy}
          onChange={(event) => choose({ power: event.target.value as typeof has })}
        >
          <Options of={POWER_SOURCES} />
        </Form.Select>
      </label>
      {has === "solar" && (
        <span>
          {`${label} ${latitude ?? empty}°`}
          <NamedFigures
            label={label}
            named={named}
            value={latitude === null ? "" : `${latitude}`}
            size="sm"
            disabled={changes.busy}
            onChange={(figure) => choose({ latitude_deg: figure === "" ? null : Number(figure) })}
          />
        </span>
      )}
    </div>
  );
}

function PowerTable({ report, state }: { report: Report; state: number }) {
  const { openWorking } = useBench();
  return (
    <details className="details-table">
      <summary>Table</summary>
      <table className="as-table">
        <thead>
          <tr>
            <th scope="col">Rail</th>
            <th scope="col" className="num">
              Voltage
            </th>
            <th scope="col" className="num">
              Current
            </th>
          </tr>
        </thead>
        <tbody>
          {report.power.nodes.map((node) => (
            <tr key={node.id}>
              <th scope="row">
                {node.label} <span className="soft">({node.rail})</span>
              </th>
              {(["v", "a"] as const).map((quantity) => (
                <td key={quantity} className="num">
                  <Button
                    variant="link"
                    className="told"
                    onClick={() =>
                      openWorking(`rail:${node.id}:${quantity}@${report.power.states[state]?.id}`)
                    }
                  >
                    {quantity === "v"
                      ? figure(node.voltage_v[state] ?? 0, "V")
                      : figure(node.current_a[state] ?? 0, "A")}
                  </Button>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
