import { scaleLinear } from "d3-scale";

import type { CriterionView, SuggestedKit } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { useWidth } from "../ui/useWidth";
import { criterionText, extentOf, isWithin, type Limits, valueOf } from "./kits";

interface Props {
  kits: SuggestedKit[];
  /** What lies along, what goes up, and all that have limits. */
  along: CriterionView;
  up: CriterionView;
  criteria: CriterionView[];
  limits: Limits;
  currency: string;
  chosen: number[];
  onChoose: (place: number) => void;
}

const START_WIDTH = 640;
const HEIGHT = 300;
const TICK_EVERY = 95;
const LEFT = 74;
const RIGHT = 26;
const TOP = 22;
const BOTTOM = 46;
const LEAST_STONE = 16;
const MOST_STONE = 30;
const SOIL = 18;

/** Each kit a stone on a slope: the price along, another criterion up, its size by its margin. What
 * passes a limit sinks into the ground below the axis. */
export function Slope(props: Props) {
  const { kits, along, up, criteria, limits, currency, chosen, onChoose } = props;
  const [frame, width] = useWidth(START_WIDTH);
  const x = scaleLinear(padded(extentOf(kits, along.id)), [LEFT, width - RIGHT]).nice();
  const y = scaleLinear(padded(extentOf(kits, up.id)), [HEIGHT - BOTTOM, TOP]).nice();
  const size = scaleLinear([0, 1], [LEAST_STONE, MOST_STONE]).clamp(true);
  const ground = HEIGHT - BOTTOM;
  const limit = { x: limits[along.id], y: limits[up.id] };
  return (
    <div ref={frame}>
      <svg
        className="slope"
        viewBox={`0 0 ${width} ${HEIGHT}`}
        role="group"
        aria-label={`Kits by ${along.label} and ${up.label}`}
      >
        <rect
          className="slope-soil"
          x={LEFT}
          y={ground}
          width={width - LEFT - RIGHT}
          height={SOIL}
        />
        {x.ticks(Math.max(2, Math.floor(width / TICK_EVERY) - 1)).map((tick) => (
          <text key={tick} className="slope-tick" x={x(tick)} y={ground + SOIL + 14}>
            {criterionText(along, tick, currency)}
          </text>
        ))}
        {y.ticks(4).map((tick) => (
          <g key={tick}>
            <line className="slope-grid" x1={LEFT} x2={width - RIGHT} y1={y(tick)} y2={y(tick)} />
            <text className="slope-tick side" x={LEFT - 8} y={y(tick) + 4}>
              {criterionText(up, tick, currency)}
            </text>
          </g>
        ))}
        <text className="slope-label" x={LEFT} y={12}>
          {up.label}
        </text>
        <text className="slope-label end" x={width - RIGHT} y={HEIGHT - 2}>
          {along.label}
        </text>
        {limit.x !== undefined && (
          <line className="slope-limit" x1={x(limit.x)} x2={x(limit.x)} y1={TOP - 6} y2={ground} />
        )}
        {limit.y !== undefined && (
          <line
            className="slope-limit"
            x1={LEFT}
            x2={width - RIGHT}
            y1={y(limit.y)}
            y2={y(limit.y)}
          />
        )}
        {kits.map((kit, place) => {
          const under = !isWithin(kit, criteria, limits);
          const edge = under ? LEAST_STONE : size(valueOf(kit, "margin") || 0.5);
          const at = { x: x(valueOf(kit, along.id)), y: y(valueOf(kit, up.id)) };
          const told = criteria
            .map((one) => `${one.label} ${criterionText(one, valueOf(kit, one.id), currency)}`)
            .join(", ");
          return (
            <g
              key={place}
              className={`slope-stone ${under ? "under" : ""} ${chosen.includes(place) ? "chosen" : ""}`}
              transform={`translate(${at.x - edge / 2} ${under ? ground + 1 : at.y - edge / 2})`}
              role="checkbox"
              aria-checked={chosen.includes(place)}
              aria-label={`Kit ${place + 1}: ${told}`}
              tabIndex={0}
              onClick={() => onChoose(place)}
              onKeyDown={(event) => {
                if (event.key !== " " && event.key !== "Enter") return;
                event.preventDefault();
                onChoose(place);
              }}
            >
              <title>{told}</title>
              <rect className="slope-hit" width={edge} height={edge} />
              <Cobble severity={kit.tight.length > 0 ? "tight" : "ok"} size={edge} silent />
            </g>
          );
        })}
      </svg>
    </div>
  );
}

/** A little room on both sides, and some where all values are the same. */
function padded([least, most]: [number, number]): [number, number] {
  const room = (most - least) * 0.06 || Math.abs(most) * 0.1 || 1;
  return [Math.max(least - room, least >= 0 ? 0 : -Infinity), most + room];
}
