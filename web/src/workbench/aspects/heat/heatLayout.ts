/** From the heat report to rungs on one temperature axis, with the heat that passes between. Pure. */
import { scaleLinear } from "d3-scale";

import type { Report } from "../../../api/types";
import { serverValue, shownValue } from "../../../ui/displayUnits";
import { wrapped } from "../../../ui/wrapped";

export interface Rung {
  id: string;
  label: string;
  /** The label in lines as wide as the column, to stand at the foot of it. */
  name: string[];
  x: number;
  width: number;
  y: number;
  tempC: number;
  band: { top: number; bottom: number } | null;
  limit: { y: number; tempC: number } | null;
  tone: "plain" | "ok" | "tight" | "problem";
  figure: string;
}

export interface HeatFlow {
  id: string;
  path: string;
  width: number;
  powerW: number;
  label: { x: number; y: number } | null;
}

export interface HeatLayout {
  width: number;
  height: number;
  outside: { y: number; height: number; ambientC: number };
  ticks: { y: number; label: string }[];
  /** Where the names of the rungs begin. */
  footY: number;
  /** Whether the columns are wide enough to say what a limit means. */
  roomy: boolean;
  rungs: Rung[];
  transfers: HeatFlow[];
  /** How many hot bodies are left to the table, those farthest from their limit. */
  hidden: number;
}

const LEFT = 40;
const RIGHT = 16;
const TOP = 16;
const BOTTOM = 62;
const FOOT = 46;
const WIDEST_RUNG = 78;
/** What is kept free right of a rung for its temperature. */
const FIGURE_ROOM = 28;
const THICKEST = 22;
const THINNEST = 1.2;
/** As many hot bodies as stay readable beside the board and its case. */
const MOST_SPOTS = 4;
const ROOMY = 92;
const CHAR_WIDTH = 6.4;
/** Flows below this share of the greatest are drawn but not named. */
const NAMED_SHARE = 0.12;
/** From the outside inwards: heat climbs to the right. */
export const ORDER = ["wall", "inside", "board", "sink", "die"];
/** Where along its flow the watts may stand, the best place first. */
const LABEL_PLACES = [0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8];
const LABEL = { right: 8, width: 38, above: 11, below: 3 };

/** `state` is an index into the report's heat states; `width` and `height` the room there is. [px] */
export function heatLayout(
  report: Report,
  state: number,
  width: number,
  height: number,
): HeatLayout | null {
  const { heat } = report;
  if (heat.nodes.length === 0) return null;
  const spots = heat.nodes.filter((node) => !ORDER.includes(node.id));
  const closest = byHeadroom(spots, state).slice(0, MOST_SPOTS);
  const nodes = [
    ...ORDER.flatMap((id) => heat.nodes.filter((node) => node.id === id)),
    ...spots.filter((node) => closest.includes(node)),
  ];
  const highest = Math.max(
    ...nodes.map((node) =>
      Math.max(node.temp_p95_c?.[state] ?? 0, node.temp_c[state] ?? 0, node.limit_c ?? 0),
    ),
  );
  const low = Math.floor((heat.ambient_c - 10) / 10) * 10;
  const high = Math.ceil((highest + 6) / 10) * 10;
  const toY = scaleLinear([low, high], [height - BOTTOM, TOP]);
  const y = (temp: number) => round(toY(temp));
  const step = (width - LEFT - RIGHT) / Math.max(1, nodes.length);
  const x = (index: number) => round(LEFT + 10 + index * step);
  const rungWidth = round(Math.max(20, Math.min(WIDEST_RUNG, step - FIGURE_ROOM)));

  const rungs = nodes.map((node, index): Rung => {
    const temp = node.temp_c[state] ?? 0;
    const bottom = node.temp_p05_c?.[state];
    const top = node.temp_p95_c?.[state];
    return {
      id: node.id,
      label: node.label,
      name: wrapped(node.label, Math.floor((step - 4) / CHAR_WIDTH)),
      x: x(index),
      width: rungWidth,
      y: y(temp),
      tempC: temp,
      band: bottom === undefined || top === undefined ? null : { top: y(top), bottom: y(bottom) },
      limit: node.limit_c === null ? null : { y: y(node.limit_c), tempC: node.limit_c },
      tone: node.limit_c === null ? "plain" : tone(report, node.id, heat.states[state]?.id ?? ""),
      figure: `heat:${node.id}@${heat.states[state]?.id}`,
    };
  });
  const ambientY = y(heat.ambient_c);
  return {
    width,
    height,
    outside: { y: ambientY, height: height - BOTTOM - ambientY, ambientC: heat.ambient_c },
    ticks: scaleLinear()
      .domain(toY.domain().map((temp) => shownValue(temp, "°C")))
      .ticks(6)
      .map((temp) => ({ y: y(serverValue(temp, "°C")), label: String(temp) })),
    footY: height - FOOT,
    roomy: step >= ROOMY,
    rungs,
    transfers: transfersOf(report, state, rungs, ambientY, wordsOf(rungs, step >= ROOMY)),
    hidden: spots.length - closest.length,
  };
}

/** What is closest to its limit first. */
export function byHeadroom<Node extends { limit_c: number | null; temp_c: number[] }>(
  nodes: Node[],
  state: number,
): Node[] {
  const headroom = (node: Node) => (node.limit_c ?? Infinity) - (node.temp_c[state] ?? 0);
  return [...nodes].sort((a, b) => headroom(a) - headroom(b));
}

/** How the margin that judges a node stands in a state: the processor's, or a hot body's own. */
export function tone(report: Report, node: string, state: string): Rung["tone"] {
  const own = report.margins.find(
    (margin) =>
      margin.family === "heat" &&
      (node === "die" ? margin.id.endsWith(".die") : margin.id.endsWith(`:${node}`)),
  );
  const severity = own?.severity_by_state[own.states.indexOf(state)];
  return severity === "problem" || severity === "tight" ? severity : "ok";
}

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** What the rungs say of themselves: their temperature on the right, their limit above its line. */
function wordsOf(rungs: Rung[], roomy: boolean): Box[] {
  return rungs.flatMap(({ x, width, y, limit }) => {
    const middle = x + width / 2;
    const half = roomy ? 34 : 12;
    const figure = {
      left: x + width + 4,
      right: x + width + FIGURE_ROOM,
      top: y - 8,
      bottom: y + 5,
    };
    const bar = { left: x, right: x + width, top: y - 4, bottom: y + 4 };
    if (limit === null) return [figure, bar];
    const least = { left: middle - half, right: middle + half, top: limit.y - 16, bottom: limit.y };
    return [figure, bar, least];
  });
}

/** The first place along a flow where its watts cover no words; null where the table has to tell. */
function labelPlace(
  at: (share: number) => { x: number; y: number },
  taken: Box[],
): { x: number; y: number } | null {
  for (const place of LABEL_PLACES) {
    const { x, y } = at(place);
    const left = x + LABEL.right;
    const box = { left, right: left + LABEL.width, top: y - LABEL.above, bottom: y + LABEL.below };
    const covers = (other: Box) =>
      box.left < other.right &&
      other.left < box.right &&
      box.top < other.bottom &&
      other.top < box.bottom;
    if (!taken.some(covers)) {
      taken.push(box);
      return { x: round(x), y: round(y) };
    }
  }
  return null;
}

/** `taken` is what is written already; the watts of the flows are added to it. */
function transfersOf(
  report: Report,
  state: number,
  rungs: Rung[],
  ambientY: number,
  taken: Box[],
): HeatFlow[] {
  const at = new Map(rungs.map((rung) => [rung.id, rung]));
  const powers = report.heat.paths.map((path) => Math.abs(path.power_w[state] ?? 0));
  const greatest = Math.max(0.01, ...powers);
  return report.heat.paths.flatMap((path, index) => {
    const from = at.get(path.start);
    const to = at.get(path.end);
    const powerW = path.power_w[state] ?? 0;
    if (!from || powerW < 0.005) return [];
    const x0 = from.x + from.width / 2;
    const x1 = to ? to.x + to.width / 2 : round(from.x + from.width * 0.2);
    const y1 = to ? to.y : ambientY;
    const share = (powers[index] ?? 0) / greatest;
    const middle = round((from.y + y1) / 2);
    // The flow is a cubic curve that leaves and arrives upright.
    const along = (t: number) => ({
      x: x0 + (x1 - x0) * t * t * (3 - 2 * t),
      y:
        from.y * (1 - t) ** 3 +
        3 * middle * (1 - t) ** 2 * t +
        3 * middle * (1 - t) * t ** 2 +
        y1 * t ** 3,
    });
    return [
      {
        id: `${path.start}-${path.end}`,
        path: `M${x0} ${from.y}C${x0} ${middle} ${x1} ${middle} ${x1} ${y1}`,
        width: round(Math.max(THINNEST, share * THICKEST)),
        powerW,
        label: share >= NAMED_SHARE ? labelPlace(along, taken) : null,
      },
    ];
  });
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}
