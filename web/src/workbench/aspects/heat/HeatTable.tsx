import { figure, percent } from "../../../ui/numbers";
import { useBench } from "../../bench";

/** Temperatures of the thermal network by state, on the hottest day. */
export function HeatTable() {
  const { heat } = useBench().report;
  if (heat.why_not)
    return <p className="soft pt-3">Nothing can be said about heat: {heat.why_not}.</p>;
  const band =
    heat.hottest_ambient_p05_c !== null && heat.hottest_ambient_p95_c !== null
      ? `${heat.hottest_ambient_p05_c.toFixed(0)} to ${figure(heat.hottest_ambient_p95_c, "°C")}`
      : "";
  const slowest = Math.min(...heat.speed_share);
  return (
    <>
      <div className="heat-head tabular">
        <span>
          Good up to <span className="big">{figure(heat.hottest_ambient_c ?? 0, "°C")}</span>{" "}
          outside <span className="soft">{band}</span>
        </span>
        <span>
          Clock held at full load <span className="big">{percent(slowest)}</span>
        </span>
      </div>
      <p className="soft mb-2">
        Settled temperatures at {figure(heat.ambient_c, "°C")} outside, with the likely band below
        each.
      </p>
      <table className="as-table">
        <thead>
          <tr>
            <th scope="col">Where</th>
            {heat.states.map((state) => (
              <th key={state.id} scope="col" className="num">
                {state.label.replace(" (mean)", "")}
              </th>
            ))}
            <th scope="col" className="num">
              Slows at
            </th>
          </tr>
        </thead>
        <tbody>
          {heat.nodes.map((node) => (
            <tr key={node.id}>
              <th scope="row">{node.label}</th>
              {node.temp_c.map((temp, index) => (
                <td key={heat.states[index]?.id} className="num">
                  {figure(temp, "°C")}
                  <div className="soft">
                    {node.temp_p05_c?.[index]?.toFixed(0)}–{node.temp_p95_c?.[index]?.toFixed(0)}
                  </div>
                </td>
              ))}
              <td className="num">{node.limit_c === null ? "" : figure(node.limit_c, "°C")}</td>
            </tr>
          ))}
          <tr>
            <th scope="row">Heat given off inside</th>
            {heat.inside_w.map((power, index) => (
              <td key={heat.states[index]?.id} className="num">
                {figure(power, "W")}
              </td>
            ))}
            <td />
          </tr>
        </tbody>
      </table>
    </>
  );
}
