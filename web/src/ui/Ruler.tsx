import { useId } from "react";

import type { Severity } from "../api/types";
import { rulerLayout, rulerX } from "./rulerLayout";

export type RulerSize = "sm" | "md" | "lg";
const SIZES = { sm: { bar: 6, cap: 5 }, md: { bar: 8, cap: 6 }, lg: { bar: 10, cap: 7 } };

interface Props {
  /** Spare over its span, -0.5 to 1; null draws only the limit line. */
  share: number | null;
  /** Where it stood before a change, drawn as an outline. */
  before?: number | null;
  low?: number | null;
  high?: number | null;
  /** Where it stands in the state that need not hold, drawn as a hollow tick. */
  worst_case?: number | null;
  severity: Severity;
  /** [px] */
  width: number;
  height: number;
  size?: RulerSize;
}

/**
 * One margin on its limit line. The line runs the whole height, so that rulers stacked without a
 * gap share one line. A hollow tick tells of the state that need not hold. Decorative: the figure and its words stand beside it.
 */
export function Ruler({
  share,
  before = null,
  low,
  high,
  worst_case = null,
  severity,
  width,
  height,
  size = "md",
}: Props) {
  const hatch = useId();
  const { bar, cap } = SIZES[size];
  const middle = height / 2;
  const layout = share === null ? null : rulerLayout(share, low ?? null, high ?? null, width);
  const ghost = before === null ? null : rulerLayout(before, null, null, width);
  const limitX = rulerX(0, width);
  return (
    <svg
      className="ruler"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      preserveAspectRatio="none"
      aria-hidden
    >
      {ghost && before !== share && (
        <rect
          x={ghost.bar.x}
          y={middle - bar / 2 - 2}
          width={ghost.bar.width}
          height={bar + 4}
          fill="none"
          stroke="var(--ink-soft)"
          strokeDasharray="2 2"
        />
      )}
      {layout && share !== null && (
        <>
          {share < 0 && (
            <pattern
              id={hatch}
              width={4}
              height={4}
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <rect width={4} height={4} fill={`var(--${severity}-pale)`} />
              <rect
                width={1.6}
                height={4}
                fill={`var(--${severity === "problem" ? "problem" : "tight"}-fill)`}
              />
            </pattern>
          )}
          <rect
            x={layout.bar.x}
            y={middle - bar / 2}
            width={layout.bar.width}
            height={bar}
            fill={
              share < 0 ? `url(#${hatch})` : `var(--${severity === "note" ? "ok" : severity}-fill)`
            }
            stroke={
              share < 0 ? `var(--${severity === "problem" ? "problem" : "tight"}-fill)` : "none"
            }
            strokeWidth={1}
          />
          {layout.whisker && (
            <path
              d={`M${layout.whisker.from} ${middle}H${layout.whisker.to}M${layout.whisker.from} ${middle - cap / 2}v${cap}M${layout.whisker.to} ${middle - cap / 2}v${cap}`}
              stroke="var(--ink)"
              strokeWidth={1.2}
              fill="none"
            />
          )}
        </>
      )}
      {share !== null && worst_case !== null && (
        <rect
          x={rulerX(worst_case, width) - 1.5}
          y={middle - bar / 2 - 2}
          width={3}
          height={bar + 4}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={1}
        />
      )}
      <line x1={limitX} x2={limitX} y1={0} y2={height} stroke="var(--ink)" strokeWidth={1.5} />
    </svg>
  );
}
