import Button from "react-bootstrap/Button";

import { figure } from "../../../ui/numbers";
import { useBench } from "../../bench";
import { noiseLayout, ROW, WIDTH } from "./noiseLayout";

/** What is heard at 1 m: each thing that turns, all together, and what its place allows. */
export function NoiseView() {
  const { report, openDetails, setChosenLine } = useBench();
  const { noise } = report;
  const layout = noiseLayout(noise);
  const told = layout.rows.map((row) => `${row.name} ${row.text}`).join(", ");
  return (
    <>
      <div className="aspect-bar">
        {noise.limit_dba === null ? (
          <span className="soft">No noise limit yet. Set one to check the noise.</span>
        ) : (
          <span>
            Noise limit <strong className="tabular">{figure(noise.limit_dba, "dB(A)")}</strong> at 1
            m
          </span>
        )}
        <Button variant="" size="sm" onClick={openDetails}>
          {noise.limit_dba === null ? "Set a noise limit" : "Change"}
        </Button>
      </div>
      {noise.heard.length === 0 ? (
        <p>No part in this kit makes noise.</p>
      ) : (
        <svg
          className="drawing noise-drawing"
          viewBox={`0 0 ${WIDTH} ${layout.height}`}
          role="group"
          aria-label={`Noise at 1 m: ${told}`}
        >
          {layout.ticks.map((tick) => (
            <g key={tick.level}>
              <line className="tick" x1={tick.x} x2={tick.x} y1={0} y2={layout.height - 18} />
              <text className="small" x={tick.x} y={layout.height - 3} textAnchor="middle">
                {tick.level}
              </text>
            </g>
          ))}
          <text className="small" x={WIDTH} y={layout.height - 3} textAnchor="end">
            dB(A)
          </text>
          {layout.rows.map((row) => (
            <g
              key={row.key}
              className={row.line ? "noise-part" : "noise-all"}
              onClick={() => row.line && setChosenLine(row.line)}
            >
              <text x={layout.start - 10} y={row.y + 17} textAnchor="end">
                {row.name}
              </text>
              {row.width === null ? (
                <text className="small" x={layout.start + 6} y={row.y + 17}>
                  {row.text}
                </text>
              ) : (
                <>
                  <rect x={layout.start} y={row.y + 5} width={row.width} height={ROW - 14} />
                  <text x={WIDTH} y={row.y + 17} textAnchor="end">
                    {row.text}
                  </text>
                </>
              )}
            </g>
          ))}
          {layout.rooms.map((room) => (
            <g key={room.name} className="noise-room">
              <line x1={room.x} x2={room.x} y1={0} y2={room.y - 4} />
              <text
                className="small"
                x={room.x + (room.toRight ? 5 : -5)}
                y={room.y}
                textAnchor={room.toRight ? "start" : "end"}
              >
                {room.text}
              </text>
            </g>
          ))}
          {layout.limit !== null && (
            <line
              className={layout.over ? "limit over" : "limit"}
              x1={layout.limit}
              x2={layout.limit}
              y1={-4}
              y2={layout.height - 18}
            />
          )}
        </svg>
      )}
      <p className="soft mt-3">
        Fans at full speed, disks while they seek. A closed case reduces the noise. Two equal
        sources are 3 dB louder than one.
      </p>
    </>
  );
}
