import { useId } from "react";

import type { Moved } from "../../../api/types";
import { Hatch } from "../../../ui/Hatch";
import { duration, capacity } from "../../../ui/numbers";
import { useWidth } from "../../../ui/useWidth";

const WIDEST = 640;

/** Time for the amount, against what is allowed, with the band in which it lies. */
export function TimeBar({ moved }: { moved: Moved }) {
  const hatch = useId();
  const [frame, wide] = useWidth(WIDEST);
  const width = Math.min(wide, WIDEST);
  const end = width - 132;
  const minutes = moved.minutes ?? 0;
  const allowed = moved.allowed_min;
  const longest = Math.max(minutes, allowed ?? 0, moved.minutes_p95 ?? 0) * 1.08;
  const at = (time: number) => (time / longest) * end;
  const over = allowed !== null && minutes > allowed;
  const left = allowed === null ? "" : over ? "over" : "left";
  const spare = allowed === null ? 0 : Math.abs(allowed - minutes);
  return (
    <section className="data-part" aria-label={`Time for ${capacity(moved.amount_gb ?? 0)}`}>
      <h3>Time for {capacity(moved.amount_gb ?? 0)}</h3>
      <div ref={frame}>
        <svg
          className="drawing time-bar"
          viewBox={`0 0 ${width} 50`}
          role="img"
          aria-label={`${duration(minutes)}${allowed === null ? "" : `; allowed: ${duration(allowed)}`}`}
        >
          <Hatch id={hatch} />
          <rect x={0} y={18} width={at(over ? allowed : minutes)} height={14} />
          {over && (
            <rect
              className="over"
              x={at(allowed)}
              y={18}
              width={at(minutes) - at(allowed)}
              height={14}
              style={{ fill: `url(#${hatch})` }}
            />
          )}
          {moved.minutes_p05 !== null && moved.minutes_p95 !== null && (
            <path
              className="band"
              d={`M${at(moved.minutes_p05)} 36v6M${at(moved.minutes_p05)} 39H${at(moved.minutes_p95)}M${at(moved.minutes_p95)} 36v6`}
            />
          )}
          {allowed !== null && (
            <>
              <line className="limit" x1={at(allowed)} x2={at(allowed)} y1={10} y2={36} />
              <text className="small" x={Math.max(40, at(allowed))} y={7} textAnchor="middle">
                allowed {duration(allowed)}
              </text>
            </>
          )}
          <text
            className={over ? "strong tone-problem" : "strong"}
            x={Math.max(at(minutes), allowed === null ? 0 : at(allowed)) + 10}
            y={30}
          >
            {duration(minutes)}
            {left && `, ${duration(spare)} ${left}`}
          </text>
        </svg>
      </div>
    </section>
  );
}
