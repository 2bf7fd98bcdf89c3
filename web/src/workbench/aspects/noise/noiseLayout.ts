/** Places the bars of the noise drawing. Pure; levels come from the report. */
import type { Report } from "../../../api/types";
import { figure } from "../../../ui/numbers";

export const WIDTH = 640;
export const ROW = 30;
const START = 170;
const END = WIDTH - 90;
const LEAST_TOP = 40;
const STEP = 10;

export interface NoiseRow {
  key: string;
  line: string | null;
  name: string;
  y: number;
  /** Null where the level is not known. */
  width: number | null;
  text: string;
}

/** One bar for each thing that turns, one for all together where there are several. */
export function noiseLayout(noise: Report["noise"]) {
  const loudest = Math.max(noise.level_dba, noise.limit_dba ?? 0, LEAST_TOP);
  const known = noise.rooms.filter(
    (room) => room.level_dba <= Math.ceil(loudest / STEP) * STEP + 20,
  );
  const top = Math.max(
    Math.ceil(loudest / STEP) * STEP,
    ...known.map((room) => Math.ceil(room.level_dba / STEP) * STEP),
  );
  const at = (level: number) => START + (level / top) * (END - START);
  const parts = noise.heard.map((part, index) => ({
    key: `${part.line}-${index}`,
    line: part.line,
    name: part.name,
    level: part.level_dba,
  }));
  const together = { key: "all", line: null, name: "Total", level: noise.level_dba };
  const all = noise.heard.length > 1 ? [...parts, together] : parts;
  const rows: NoiseRow[] = all.map(({ key, line, name, level }, index) => ({
    key,
    line,
    name,
    y: index * ROW,
    width: level === null ? null : at(level) - START,
    text: level === null ? "not known" : figure(level, "dB(A)"),
  }));
  const ticks = Array.from({ length: top / STEP + 1 }, (_, index) => ({
    level: index * STEP,
    x: at(index * STEP),
  }));
  const below = rows.length * ROW;
  const rooms = known.map((room, index) => ({
    name: room.name,
    x: at(room.level_dba),
    y: below + 16 * (index + 1),
    toRight: at(room.level_dba) < WIDTH * 0.66,
    text: `${room.name}, ${figure(room.level_dba, "dB(A)")}`,
  }));
  const foot = below + 16 * rooms.length + (rooms.length > 0 ? 8 : 0);
  return {
    rows,
    rooms,
    ticks,
    start: START,
    limit: noise.limit_dba === null ? null : at(noise.limit_dba),
    over: noise.limit_dba !== null && noise.level_dba > noise.limit_dba,
    height: foot + 24,
  };
}
