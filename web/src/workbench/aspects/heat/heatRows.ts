/** Heat turned downwards, for narrow rooms: a row for each node on one axis of temperature. Pure. */
import { scaleLinear } from "d3-scale";

import type { Report } from "../../../api/types";
import { figure } from "../../../ui/numbers";
import { serverValue, shownUnit, shownValue } from "../../../ui/displayUnits";
import { byHeadroom, ORDER, tone, type Rung } from "./heatLayout";

export interface HeatRow {
  id: string;
  name: string;
  /** The base line of the name; the bar lies below it. */
  y: number;
  tempX: number;
  text: string;
  /** Where the figure begins: right of its bar, and not over the limit. */
  textX: number;
  band: { from: number; to: number } | null;
  limit: { x: number; text: string } | null;
  tone: Rung["tone"];
}

export interface HeatRows {
  width: number;
  height: number;
  outside: { x: number; text: string };
  ticks: { x: number; label: string }[];
  rows: HeatRow[];
}

const LEFT = 8;
const RIGHT = 30;
const TOP = 36;
const ROW = 44;
const FIGURE_ROOM = 38;

/** `state` is an index into the report's heat states; `width` the room there is. [px] */
export function heatRows(report: Report, state: number, width: number): HeatRows | null {
  const { heat } = report;
  if (heat.nodes.length === 0) return null;
  const hottest = Math.max(
    ...heat.nodes.map((node) =>
      Math.max(node.temp_p95_c?.[state] ?? 0, node.temp_c[state] ?? 0, node.limit_c ?? 0),
    ),
  );
  const low = Math.floor((heat.ambient_c - 6) / 5) * 5;
  const toX = scaleLinear([low, hottest + 6], [LEFT, width - RIGHT]);
  const x = (temp: number) => Math.round(toX(temp) * 10) / 10;
  // From the outside inwards, then what has the least headroom: the row that matters comes soon.
  const nodes = [
    ...ORDER.flatMap((id) => heat.nodes.filter((node) => node.id === id)),
    ...byHeadroom(
      heat.nodes.filter((node) => !ORDER.includes(node.id)),
      state,
    ),
  ];
  return {
    width,
    height: TOP + nodes.length * ROW + 8,
    outside: { x: x(heat.ambient_c), text: `outside ${figure(heat.ambient_c, "°C")}` },
    ticks: scaleLinear()
      .domain([low, hottest].map((temp) => shownValue(temp, "°C")))
      .ticks(4)
      .map((temp) => ({ x: x(serverValue(temp, "°C")), label: `${temp} ${shownUnit("°C")}` })),
    rows: nodes.map((node, index) => {
      const temp = node.temp_c[state] ?? 0;
      const [bottom, top] = [node.temp_p05_c?.[state], node.temp_p95_c?.[state]];
      const limit = node.limit_c;
      const beside = x(Math.max(temp, top ?? temp)) + 5;
      const clash = limit !== null && x(limit) > beside - 4 && x(limit) < beside + FIGURE_ROOM;
      return {
        id: node.id,
        name: node.label,
        y: TOP + index * ROW + 12,
        tempX: x(temp),
        text: figure(temp, "°C"),
        textX: clash ? x(limit) + 6 : beside,
        band: bottom === undefined || top === undefined ? null : { from: x(bottom), to: x(top) },
        limit: limit === null ? null : { x: x(limit), text: `limit ${figure(limit, "°C")}` },
        tone: limit === null ? "plain" : tone(report, node.id, heat.states[state]?.id ?? ""),
      };
    }),
  };
}
