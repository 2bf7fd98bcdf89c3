import type { HeatRows } from "./heatRows";

const BAR = 12;

/** Every temperature on one axis, a row each: from the air outside to where it comes to. */
export function HeatRowsDrawing({ rows, stateLabel }: { rows: HeatRows; stateLabel: string }) {
  const foot = rows.height - 4;
  return (
    <svg
      className="drawing heat-drawing"
      viewBox={`0 0 ${rows.width} ${rows.height}`}
      role="img"
      aria-label={`Temperatures from ambient to the hottest part, ${stateLabel}`}
    >
      {rows.ticks.map((tick) => (
        <g key={tick.label}>
          <line className="grid" x1={tick.x} x2={tick.x} y1={18} y2={foot} />
          <text x={tick.x} y={12} textAnchor="middle" className="small">
            {tick.label}
          </text>
        </g>
      ))}
      <line className="outside-line" x1={rows.outside.x} x2={rows.outside.x} y1={22} y2={foot} />
      <text x={rows.outside.x + 4} y={28} className="small">
        {rows.outside.text}
      </text>
      {rows.rows.map((row) => (
        <g key={row.id} className={`rung-${row.tone}`}>
          <text x={8} y={row.y} className="strong">
            {row.name}
            <tspan className="small">
              {"  "}
              {row.limit?.text}
            </tspan>
          </text>
          <rect
            className="heat-climb"
            x={Math.min(rows.outside.x, row.tempX)}
            y={row.y + 8}
            width={Math.abs(row.tempX - rows.outside.x)}
            height={BAR - 4}
          />
          {row.band && (
            <rect
              className="rung-band"
              x={row.band.from}
              y={row.y + 6}
              width={Math.max(1, row.band.to - row.band.from)}
              height={BAR}
            />
          )}
          <line
            className="rung-line"
            x1={row.tempX}
            x2={row.tempX}
            y1={row.y + 5}
            y2={row.y + 7 + BAR}
          />
          {row.limit && (
            <line
              className="rung-limit"
              x1={row.limit.x}
              x2={row.limit.x}
              y1={row.y + 3}
              y2={row.y + 9 + BAR}
            />
          )}
          <text x={row.textX} y={row.y + 16} className="strong">
            {row.text}
          </text>
        </g>
      ))}
    </svg>
  );
}
