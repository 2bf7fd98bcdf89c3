import { useState } from "react";
import Button from "react-bootstrap/Button";

import type { Report } from "../../../api/types";
import { bare, figure, percent } from "../../../ui/numbers";
import { useWidth } from "../../../ui/useWidth";
import { useBench } from "../../bench";
import { stateIndex } from "../stateIndex";
import { StateSwitch } from "../StateSwitch";
import { HeatDrawing } from "./HeatDrawing";
import { heatLayout } from "./heatLayout";
import { heatRows } from "./heatRows";
import { HeatRowsDrawing } from "./HeatRowsDrawing";
import { headed } from "../../../ui/numbers";

const ROOM_PX = 430;
/** In less room than this there is a row for each node instead of a column. [px] */
const NARROW = 460;

export function HeatView() {
  const { report, openWorking } = useBench();
  const { heat } = report;
  const [chosen, setChosen] = useState<string | null>(null);
  const [frame, width] = useWidth(640);
  if (heat.why_not)
    return <p className="soft pt-3">Not checked: temperature. {headed(heat.why_not)}.</p>;
  const state = stateIndex(report, "heat", heat.states, chosen);
  const narrow = width < NARROW;
  const layout = narrow ? null : heatLayout(report, state, width, ROOM_PX);
  const rows = narrow ? heatRows(report, state, width) : null;
  const stateLabel = heat.states[state]?.label.replace(" (mean)", "") ?? "";
  return (
    <>
      <HeadLine report={report} onWorking={openWorking} />
      <StateSwitch states={heat.states} current={state} onChoose={setChosen}>
        {" "}
        heat in the case <strong>{figure(heat.inside_w[state] ?? 0, "W")}</strong>
        {(heat.speed_share[state] ?? 1) < 0.995 && (
          <>
            , clock <strong>{percent(heat.speed_share[state] ?? 1)}</strong>
          </>
        )}
      </StateSwitch>
      <div ref={frame} className="drawing-scroll">
        {layout && <HeatDrawing layout={layout} stateLabel={stateLabel} />}
        {rows && <HeatRowsDrawing rows={rows} stateLabel={stateLabel} />}
      </div>
      <HeatTable report={report} onWorking={openWorking} />
    </>
  );
}

interface PartProps {
  report: Report;
  onWorking: (figure: string) => void;
}

function HeadLine({ report, onWorking }: PartProps) {
  const { heat } = report;
  const band =
    heat.hottest_ambient_p05_c !== null && heat.hottest_ambient_p95_c !== null
      ? `${bare(heat.hottest_ambient_p05_c, "°C")} to ${figure(heat.hottest_ambient_p95_c, "°C")}`
      : "";
  return (
    <div className="heat-head tabular">
      {heat.hottest_ambient_c === null ? (
        <span>Not OK at any ambient: {heat.hottest_ambient_then}</span>
      ) : (
        <span>
          OK up to{" "}
          <Button
            variant="link"
            className="told big"
            onClick={() => onWorking("heat:hottest_ambient")}
          >
            {figure(heat.hottest_ambient_c, "°C")}
          </Button>{" "}
          ambient{band && <span className="soft"> (likely {band})</span>}; above this{" "}
          {heat.hottest_ambient_then}
        </span>
      )}
      <span>
        Processor clock {heat.least_speed_when || "in every state"}{" "}
        <span className="big">{percent(heat.least_speed_share)}</span>
      </span>
    </div>
  );
}

function HeatTable({ report, onWorking }: PartProps) {
  const { heat } = report;
  return (
    <details className="details-table">
      <summary>Table with likely ranges and workings</summary>
      <table className="as-table">
        <thead>
          <tr>
            <th scope="col">Position</th>
            {heat.states.map((state) => (
              <th key={state.id} scope="col" className="num">
                {state.label.replace(" (mean)", "")}
              </th>
            ))}
            <th scope="col" className="num">
              Limit
            </th>
          </tr>
        </thead>
        <tbody>
          {heat.nodes.map((node) => (
            <tr key={node.id}>
              <th scope="row">{node.label}</th>
              {node.temp_c.map((temp, index) => (
                <td key={heat.states[index]?.id} className="num">
                  <Button
                    variant="link"
                    className="told"
                    onClick={() => onWorking(`heat:${node.id}@${heat.states[index]?.id}`)}
                  >
                    {figure(temp, "°C")}
                  </Button>
                  <div className="soft">
                    {span(node.temp_p05_c?.[index], node.temp_p95_c?.[index])}
                  </div>
                </td>
              ))}
              <td className="num">{node.limit_c === null ? "" : figure(node.limit_c, "°C")}</td>
            </tr>
          ))}
          <tr>
            <th scope="row">Heat in the case</th>
            {heat.inside_w.map((power, index) => (
              <td key={heat.states[index]?.id} className="num">
                {figure(power, "W")}
              </td>
            ))}
            <td />
          </tr>
        </tbody>
      </table>
    </details>
  );
}

/** `62–71`, the likely figures of a temperature whose unit stands above. */
function span(low?: number, high?: number): string {
  if (low === undefined || high === undefined) return "";
  return `${bare(low, "°C")}–${bare(high, "°C")}`;
}
