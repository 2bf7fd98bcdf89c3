import type { Severity } from "../api/types";
import { severityWord } from "./numbers";

/** Outline of one irregular stone, and what has happened to it: the shape says the severity. */
const STONE =
  "M4.2 3.1 L9.4 1.6 L14.6 3.4 L17.1 8.2 L15.9 13.9 L11.2 17.2 L5.6 16.1 L1.8 11.6 L2 6.2 Z";
const CHIPPED =
  "M4.2 3.1 L9.4 1.6 L11.6 2.4 L11 6.2 L13.6 7.4 L17 8 L15.9 13.9 L11.2 17.2 L5.6 16.1 L1.8 11.6 L2 6.2 Z";
const CRACK = "M10.4 2 L8.2 6.8 L11.3 9.7 L8.7 13 L9.8 16.6";
const LEFT_HALF = "M3.6 3.2 L7.9 1.4 L6 6.6 L8.4 10.2 L6.2 16.8 L1.6 12.4 L1.3 6.6 Z";
const RIGHT_HALF = "M11.4 2 L15.4 3.6 L18 8.6 L16.6 14 L12.2 17.4 L9.4 17.2 L11.6 10.4 L9.2 6.9 Z";

interface Props {
  severity: Severity;
  /** Edge length, at least 16. [px] */
  size?: number;
  /** Hidden from screen readers where the word stands beside it. */
  silent?: boolean;
}

/** Whole: sound. Chipped: note. Cracked: tight. Split in two: stops. */
export function Cobble({ severity, size = 18, silent = false }: Props) {
  const naming = silent
    ? { "aria-hidden": true as const }
    : { role: "img", "aria-label": severityWord(severity) };
  return (
    <svg
      className={`cobble tone-${severity}`}
      viewBox="0 0 19 19"
      width={Math.max(size, 16)}
      height={Math.max(size, 16)}
      {...naming}
    >
      {severity === "problem" ? (
        <g fill="currentColor">
          <path d={LEFT_HALF} />
          <path d={RIGHT_HALF} />
        </g>
      ) : (
        <path
          d={severity === "note" ? CHIPPED : STONE}
          fill={`var(--${severity}-pale)`}
          stroke="currentColor"
          strokeWidth={1.5}
          strokeLinejoin="round"
        />
      )}
      {severity === "tight" && (
        <path
          d={CRACK}
          fill="none"
          stroke="currentColor"
          strokeWidth={1.7}
          strokeLinejoin="round"
        />
      )}
    </svg>
  );
}
