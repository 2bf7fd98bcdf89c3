import { figure } from "../../../ui/numbers";
import type { HeatLayout, Rung } from "./heatLayout";

interface Props {
  layout: HeatLayout;
  stateLabel: string;
}

/** Rungs on one temperature axis: each node with its band, and the heat that passes between. */
export function HeatDrawing({ layout, stateLabel }: Props) {
  const right = layout.width - 8;
  return (
    <svg
      className="drawing heat-drawing"
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      role="img"
      aria-label={`Temperatures from the outside to the processor, ${stateLabel}`}
    >
      <rect
        className="outside"
        x={34}
        y={layout.outside.y}
        width={right - 34}
        height={Math.max(0, layout.outside.height)}
      />
      {layout.ticks.map((tick) => (
        <g key={tick.label}>
          <line className="grid" x1={34} x2={right} y1={tick.y} y2={tick.y} />
          <text x={28} y={tick.y + 4} textAnchor="end" className="small">
            {tick.label}
          </text>
        </g>
      ))}
      {layout.flows.map((flow) => (
        <path key={flow.id} className="heat-flow" d={flow.path} strokeWidth={flow.width}>
          <title>{`${flow.id.replace("-", " to ")}: ${figure(flow.powerW, "W")}`}</title>
        </path>
      ))}
      <text x={42} y={layout.outside.y + 16}>
        outside <tspan className="strong">{figure(layout.outside.ambientC, "°C")}</tspan>
      </text>
      {layout.rungs.map((rung) => (
        <RungMark key={rung.id} rung={rung} />
      ))}
      {layout.flows.map(
        (flow) =>
          flow.label && (
            <text key={flow.id} x={flow.label.x + 8} y={flow.label.y} className="heat-watts">
              {figure(flow.powerW, "W")}
            </text>
          ),
      )}
    </svg>
  );
}

/** A name stands above its band; where the limit's words are in the way, below it to the right. */
function RungName({ rung }: { rung: Rung }) {
  const above = Math.min(rung.y, rung.band?.top ?? rung.y) - 5;
  const crowded = rung.limit !== null && Math.abs(rung.limit.y - 5 - above) < 14;
  const below = Math.max(rung.y, rung.band?.bottom ?? rung.y) + 14;
  return (
    <text
      x={crowded ? rung.x + rung.width : rung.x}
      y={crowded ? below : above}
      textAnchor={crowded ? "end" : "start"}
      className="strong"
    >
      {rung.label}
    </text>
  );
}

function RungMark({ rung }: { rung: Rung }) {
  return (
    <g className={`rung rung-${rung.tone}`}>
      {rung.band && (
        <rect
          className="rung-band"
          x={rung.x}
          y={rung.band.top}
          width={rung.width}
          height={Math.max(1, rung.band.bottom - rung.band.top)}
        />
      )}
      <line className="rung-line" x1={rung.x} x2={rung.x + rung.width} y1={rung.y} y2={rung.y} />
      <RungName rung={rung} />
      <text x={rung.x + rung.width + 5} y={rung.y + 4} className="strong">
        {rung.tempC.toFixed(0)}
      </text>
      {rung.limit && (
        <>
          <line
            className="rung-limit"
            x1={rung.x}
            x2={rung.x + rung.width}
            y1={rung.limit.y}
            y2={rung.limit.y}
          />
          <text x={rung.x + rung.width} y={rung.limit.y - 5} textAnchor="end" className="small">
            slows at {rung.limit.tempC.toFixed(0)}
          </text>
        </>
      )}
    </g>
  );
}
