import { bare, figure } from "../../../ui/numbers";
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
      aria-label={`Temperatures from ambient to the processor, ${stateLabel}`}
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
      {layout.transfers.map((transfer) => (
        <path
          key={transfer.id}
          className="heat-flow"
          d={transfer.path}
          strokeWidth={transfer.width}
        >
          <title>{`${transfer.id.replace("-", " to ")}: ${figure(transfer.powerW, "W")}`}</title>
        </path>
      ))}
      <text x={42} y={layout.outside.y + 16}>
        {" "}
        ambient <tspan className="strong">{figure(layout.outside.ambientC, "°C")}</tspan>
      </text>
      {layout.rungs.map((rung) => (
        <RungMark key={rung.id} rung={rung} layout={layout} />
      ))}
      {layout.hidden > 0 && (
        <text x={right} y={12} textAnchor="end" className="small">
          {layout.hidden} more in the table
        </text>
      )}
      {layout.transfers.map(
        (transfer) =>
          transfer.label && (
            <text
              key={transfer.id}
              x={transfer.label.x + 8}
              y={transfer.label.y}
              className="heat-watts"
            >
              {figure(transfer.powerW, "W")}
            </text>
          ),
      )}
    </svg>
  );
}

/** The name stands at the foot of its column, in as many lines as it takes. */
function RungName({ rung, footY }: { rung: Rung; footY: number }) {
  const middle = rung.x + rung.width / 2;
  return (
    <text x={middle} y={footY} textAnchor="middle" className="rung-name">
      {rung.name.map((line, index) => (
        <tspan key={line} x={middle} dy={index === 0 ? 12 : 13}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

function RungMark({ rung, layout }: { rung: Rung; layout: HeatLayout }) {
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
      <RungName rung={rung} footY={layout.footY} />
      <text x={rung.x + rung.width + 5} y={rung.y + 4} className="strong">
        {bare(rung.tempC, "°C")}
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
          <text
            x={rung.x + rung.width / 2}
            y={rung.limit.y - 5}
            textAnchor="middle"
            className="small"
          >
            {layout.roomy && "limit "}
            {bare(rung.limit.tempC, "°C")}
          </text>
        </>
      )}
    </g>
  );
}
