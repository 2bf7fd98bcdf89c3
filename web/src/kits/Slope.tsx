import { scaleLinear, type ScaleLinear } from "d3-scale";
import type { PointerEvent } from "react";

import type { BeatenKit, CriterionView, SuggestedKit } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { useWidth } from "../ui/useWidth";
import { criterionText, extentOf, isWithin, type Limits, valueOf, withOthers } from "./kits";

interface Props {
  kits: SuggestedKit[];
  /** What others beat, drawn as grit. */
  also: BeatenKit[];
  /** What lies along, what goes up, and all that have limits. */
  along: CriterionView;
  up: CriterionView;
  criteria: CriterionView[];
  limits: Limits;
  currency: string;
  chosen: number[];
  onChoose: (place: number) => void;
  onLimits: (limits: Limits) => void;
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
  const { kits, also, along, up, criteria, limits, currency, chosen, onChoose, onLimits } = props;
  const [frame, width] = useWidth(START_WIDTH);
  const reach = (one: CriterionView) =>
    padded(
      withOthers(
        extentOf(kits, one.id),
        also.map((kit) => valueOf(kit, one.id)),
      ),
    );
  const x = scaleLinear(reach(along), [LEFT, width - RIGHT]).nice();
  const y = scaleLinear(reach(up), [HEIGHT - BOTTOM, TOP]).nice();
  const size = scaleLinear([0, 1], [LEAST_STONE, MOST_STONE]).clamp(true);
  const ground = HEIGHT - BOTTOM;
  const grit = also.flatMap((kit) => {
    const at = { x: x(valueOf(kit, along.id)), y: y(valueOf(kit, up.id)) };
    const isIn = at.x >= LEFT && at.x <= width - RIGHT && at.y >= TOP && at.y <= ground;
    return isIn ? [{ kit, at }] : [];
  });
  const beaten = ({ beaten_by, better_in, parts }: BeatenKit) => {
    const better = criteria.filter((one) => better_in.includes(one.id));
    const words = better.map((one) => one.label.toLowerCase()).join(", ");
    return `Kit ${beaten_by + 1} is better${words && ` (${words})`}: ${parts}`;
  };
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
        {grit.map(({ kit, at }, place) => (
          <circle key={place} className="slope-grit" cx={at.x} cy={at.y} r={3}>
            <title>{beaten(kit)}</title>
          </circle>
        ))}
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
        {[along, up].map((one) => (
          <LimitLine
            key={one.id}
            one={one}
            isUp={one === up}
            scale={one === up ? y : x}
            extent={extentOf(kits, one.id)}
            limit={limits[one.id]}
            width={width}
            onLimit={(value) => onLimits({ ...limits, [one.id]: value })}
          />
        ))}
      </svg>
    </div>
  );
}

interface LimitLineProps {
  one: CriterionView;
  isUp: boolean;
  scale: ScaleLinear<number, number>;
  extent: [number, number];
  limit: number | undefined;
  width: number;
  onLimit: (value: number) => void;
}

/** A limit as a line that is dragged; the sliders beside the drawing do the same by keys. It lies
 * where no kit passes it until it is drawn in. */
function LimitLine({ one, isUp, scale, extent, limit, width, onLimit }: LimitLineProps) {
  const [least, most] = extent;
  const at = scale(limit ?? (one.more ? least : most));
  const ends = isUp
    ? { x1: LEFT, x2: width - RIGHT, y1: at, y2: at }
    : { x1: at, x2: at, y1: TOP - 6, y2: HEIGHT - BOTTOM };
  const drag = (event: PointerEvent<SVGLineElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (!box) return;
    const place = isUp
      ? ((event.clientY - box.top) / box.height) * HEIGHT
      : ((event.clientX - box.left) / box.width) * width;
    onLimit(Math.min(most, Math.max(least, scale.invert(place))));
  };
  return (
    <g className={limit === undefined ? "slope-line unset" : "slope-line"} aria-hidden="true">
      <line className="slope-limit" {...ends} />
      {least < most && (
        <line
          className={isUp ? "slope-handle up" : "slope-handle"}
          {...ends}
          onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
          onPointerMove={drag}
        >
          <title>{`${one.label} ${one.more ? "at least" : "at most"}: drag`}</title>
        </line>
      )}
    </g>
  );
}

/** A little room on both sides, and some where all values are the same. */
function padded([least, most]: [number, number]): [number, number] {
  const room = (most - least) * 0.06 || Math.abs(most) * 0.1 || 1;
  return [Math.max(least - room, least >= 0 ? 0 : -Infinity), most + room];
}
