import { useId } from "react";

import type { Report } from "../../../api/types";
import { Hatch } from "../../../ui/Hatch";
import { useWidth } from "../../../ui/useWidth";
import { litLines, useBench } from "../../bench";
import { AddressList } from "./AddressList";
import { headerLayout, type HeaderLayout, type PinCell } from "./headerLayout";
import { WiredList } from "./WiredList";

/** The header: who uses which pin, at which address, and the wires to make. */
export function HeaderView() {
  const bench = useBench();
  const { header } = bench.report.fit;
  const [frame, width] = useWidth(640);
  if (header.why_not)
    return (
      <p className="soft pt-2">
        {header.why_not} {header.users.length > 0 && "Parts of this kit need GPIO pins."}
      </p>
    );
  const layout = headerLayout(header, width);
  return (
    <>
      <div ref={frame} className="header-scroll">
        <HeaderDrawing layout={layout} lit={litLines(bench)} />
      </div>
      <p className="soft mb-0">
        {header.users.length === 0
          ? "No part uses the GPIO header yet. Each part that does is drawn as a line with a dot at each pin."
          : "One line per part. Open dot: shared pin. Filled dot: pin used alone."}
      </p>
      <AddressList header={header} />
      <WiredList header={header} />
      <WiringTable header={header} />
    </>
  );
}

function HeaderDrawing({ layout, lit }: { layout: HeaderLayout; lit: Set<string> }) {
  const hatch = useId();
  return (
    <svg
      className="drawing header-drawing"
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      style={{ minWidth: layout.width }}
      role="img"
      aria-label="GPIO header from above, with the parts at each pin"
    >
      <Hatch id={hatch} />
      {layout.bands.map((band) => (
        <rect
          key={band.key}
          className="clash-band"
          x={band.x + 1}
          y={band.y}
          width={layout.cell - 2}
          height={band.height}
          style={{ fill: `url(#${hatch})` }}
        />
      ))}
      {layout.pins.map((pin) => (
        <Pin key={pin.number} pin={pin} cell={layout.cell} />
      ))}
      {layout.threads.map((thread) => (
        <g key={thread.key} className={thread.line && lit.has(thread.line) ? "lit" : ""}>
          <text x={0} y={thread.y + 4} className="thread-name">
            {thread.label}
          </text>
          <line className="thread" x1={thread.from} x2={thread.to} y1={thread.y} y2={thread.y} />
          {thread.knots.map((knot) => (
            <circle
              key={knot.pin}
              className={`knot ${knot.alone ? "alone" : ""} ${knot.clash ? "clashing" : ""}`}
              cx={knot.x}
              cy={knot.y}
              r={4.2}
            >
              <title>{knot.title}</title>
            </circle>
          ))}
        </g>
      ))}
    </svg>
  );
}

function Pin({ pin, cell }: { pin: PinCell; cell: number }) {
  const upper = pin.number % 2 === 0;
  return (
    <g>
      <title>{`Pin ${pin.number}: ${pin.name}`}</title>
      <rect
        className={`pin ${pin.state}`}
        x={pin.x + 1.5}
        y={pin.y + 1.5}
        width={cell - 3}
        height={23}
        rx={2}
      />
      <text
        x={pin.x + cell / 2}
        y={pin.y + 17}
        textAnchor="middle"
        className={`pin-no ${pin.state}`}
      >
        {pin.number}
      </text>
      <text
        x={pin.x + cell / 2}
        y={upper ? pin.y - 5 : pin.y + 37}
        textAnchor="middle"
        className={`pin-task ${cell < 24 ? "dense" : ""}`}
      >
        {pin.short}
      </text>
    </g>
  );
}

function WiringTable({ header }: { header: Report["fit"]["header"] }) {
  if (header.wires.length === 0) return null;
  return (
    <>
      <h3 className="view-head">Wiring</h3>
      <table className="as-table">
        <thead>
          <tr>
            <th scope="col" className="num">
              Pin
            </th>
            <th scope="col">Function</th>
            <th scope="col">Resistor</th>
            <th scope="col">To</th>
          </tr>
        </thead>
        <tbody>
          {header.wires.map((wire) => (
            <tr key={`${wire.pin}/${wire.through}`}>
              <th scope="row" className="num">
                {wire.pin}
              </th>
              <td className="soft">{wire.pin_name}</td>
              <td className="tabular">{wire.through}</td>
              <td>
                {wire.to.join(" + ")}
                {wire.to.length > 1 && <span className="soft">, joined before the pin</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
