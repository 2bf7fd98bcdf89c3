import type { Moved } from "../../../api/types";
import { useWidth } from "../../../ui/useWidth";
import { figure } from "../../../ui/numbers";
import { rateAxis } from "./channels";

const WIDEST = 640;
const ROW = 26;
const START = 64;

/** What it would get without its neck, and what would hold it back then. */
export function BetterBars({ moved }: { moved: Moved }) {
  const [frame, wide] = useWidth(WIDEST);
  const width = Math.min(wide, WIDEST);
  const words = ["now", "then", "after"];
  const rows = [
    { rate: moved.rate_mb_s, bottleneck: moved.bottleneck_label },
    ...moved.betters.map((better) => ({ rate: better.rate_mb_s, bottleneck: better.bottleneck })),
  ];
  const { at, ticks } = rateAxis(
    rows.map((row) => row.rate),
    START,
    width - Math.min(230, width * 0.45),
  );
  const height = rows.length * ROW;
  const told = rows.map((row, index) => `${words[index]} ${figure(row.rate, "MB/s")}`).join(", ");
  return (
    <section className="data-part" aria-label="With a faster bottleneck">
      <h3>With a faster bottleneck</h3>
      <div ref={frame}>
        <svg
          className="drawing better-bars"
          viewBox={`0 0 ${width} ${height + 18}`}
          role="img"
          aria-label={told}
        >
          {ticks.map((tick) => (
            <g key={tick}>
              <line className="tick" x1={at(tick)} x2={at(tick)} y1={0} y2={height} />
              <text className="small" x={at(tick)} y={height + 14} textAnchor="middle">
                {tick}
              </text>
            </g>
          ))}
          {rows.map((row, index) => (
            <g key={index} className={`row-${words[index]}`}>
              <text className="small" x={0} y={index * ROW + 16}>
                {words[index]}
              </text>
              <rect x={START} y={index * ROW + 4} width={at(row.rate) - START} height={ROW - 12} />
              <text x={at(row.rate) + 8} y={index * ROW + 16}>
                <tspan className="strong">{figure(row.rate, "MB/s")}</tspan>
                <tspan className="small" dx={8}>
                  {row.bottleneck}
                </tspan>
              </text>
            </g>
          ))}
        </svg>
      </div>
    </section>
  );
}
