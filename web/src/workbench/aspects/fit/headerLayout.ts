/** The header as it lies on the board, and under it one thread for each part that uses it. Pure. */
import type { Report } from "../../../api/types";

type Header = Report["fit"]["header"];

export interface PinCell {
  number: number;
  name: string;
  short: string;
  state: Header["pins"][number]["state"];
  x: number;
  y: number;
}

export interface Thread {
  key: string;
  label: string;
  line: string | null;
  y: number;
  from: number;
  to: number;
  knots: { pin: number; x: number; y: number; alone: boolean; clash: boolean; title: string }[];
}

export interface HeaderLayout {
  width: number;
  height: number;
  cell: number;
  pins: PinCell[];
  threads: Thread[];
  /** Columns in which two parts want the same pin. */
  bands: { x: number; y: number; height: number; key: number }[];
}

const LABELS = 104;
const TOP = 20;
const ROW = 26;
const THREAD = 25;
const GAP = 34;
const MOST_LETTERS = 16;

export function headerLayout(header: Header, width: number): HeaderLayout {
  const columns = header.pins.length / 2;
  const cell = Math.min(34, Math.max(19, (width - LABELS - 8) / columns));
  const xOf = (pin: number) => round(LABELS + Math.floor((pin - 1) / 2) * cell);
  const pins = header.pins.map((pin) => ({
    ...pin,
    x: xOf(pin.number),
    // Even numbers lie along the edge of the board, odd ones within.
    y: pin.number % 2 === 0 ? TOP : TOP + ROW,
  }));
  const states = new Map(header.pins.map((pin) => [pin.number, pin]));
  const first = TOP + 2 * ROW + GAP;
  const threads = header.users.map((user, row) => {
    const y = first + row * THREAD;
    const knots = [...user.shares, ...user.takes].map((pin) => {
      const at = states.get(pin);
      return {
        pin,
        x: round(xOf(pin) + cell / 2),
        y: y + (pin % 2 === 0 ? -5 : 5),
        alone: user.takes.includes(pin),
        clash: at?.state === "clash",
        title: `${user.name}: pin ${pin}, ${at?.name ?? ""}`,
      };
    });
    const xs = knots.map((knot) => knot.x);
    return {
      key: user.id,
      label: shortened(user.name),
      line: user.line,
      y,
      from: Math.min(...xs),
      to: Math.max(...xs),
      knots,
    };
  });
  const height = first + Math.max(1, threads.length) * THREAD;
  return {
    width: Math.max(width, LABELS + columns * cell + 4),
    height,
    cell: round(cell),
    pins,
    threads,
    bands: header.pins
      .filter((pin) => pin.state === "clash")
      .map((pin) => ({
        key: pin.number,
        x: xOf(pin.number),
        y: pin.number % 2 === 0 ? TOP : TOP + ROW,
        height: height - TOP - (pin.number % 2 === 0 ? 0 : ROW) - THREAD / 2,
      })),
  };
}

function shortened(name: string): string {
  return name.length > MOST_LETTERS ? `${name.slice(0, MOST_LETTERS - 1)}…` : name;
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}
