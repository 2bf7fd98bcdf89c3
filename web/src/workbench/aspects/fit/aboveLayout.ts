/** From the fit report to a view from above, to scale: x along the board, y across. Pure. */
import type { Report } from "../../../api/types";

type Fit = Report["fit"];

export interface AboveBlock {
  key: string;
  label: string;
  look: string;
  line: string;
  x: number;
  y: number;
  width: number;
  height: number;
  /** Whether its name fits into it. */
  named: boolean;
}

export interface AbovePlug extends AboveBlock {
  textX: number;
  textY: number;
  anchor: "start" | "middle" | "end";
}

export interface AboveLayout {
  width: number;
  height: number;
  blocks: AboveBlock[];
  plugs: AbovePlug[];
  overlaps: AboveBlock[];
  access: AboveBlock[];
  shell: {
    x: number;
    y: number;
    width: number;
    height: number;
    wall: number;
    open: boolean;
  } | null;
  /** Openings in the walls, as strips of the wall that are not there. */
  openings: AboveBlock[];
}

const SIDE = 84;
const TOP = 16;
const FOOT = 30;
const LETTER = 6.6;

type Flat = { x_mm: number; y_mm: number; dx_mm: number; dy_mm: number };

/** `hidden` are lines of the kit that are left out; `width` and `height` are the room. [px] */
export function aboveLayout(
  fit: Fit,
  width: number,
  height: number,
  hidden: Set<string>,
): AboveLayout | null {
  const length = fit.board_length_mm;
  const across = fit.board_width_mm;
  if (length === null || across === null) return null;
  const wall = fit.case?.wall_mm ?? 0;
  const insetX = fit.case ? (fit.case.inner_length_mm - length) / 2 : 0;
  const insetY = fit.case ? (fit.case.inner_width_mm - across) / 2 : 0;
  const flats: Flat[] = [...fit.boxes, ...fit.plugs];
  const left = Math.min(-insetX - wall, ...flats.map((box) => box.x_mm));
  const right = Math.max(length + insetX + wall, ...flats.map((box) => box.x_mm + box.dx_mm));
  const low = Math.min(-insetY - wall, ...flats.map((box) => box.y_mm));
  const high = Math.max(across + insetY + wall, ...flats.map((box) => box.y_mm + box.dy_mm));
  const scale = Math.min(
    (width - 2 * SIDE) / (right - left),
    (height - TOP - FOOT) / (high - low),
    7,
  );
  const offset = (width - (right - left) * scale) / 2;
  const toX = (mm: number) => round(offset + (mm - left) * scale);
  const toY = (mm: number) => round(TOP + (high - mm) * scale);
  const place = (box: Flat, key: string, label: string, look: string, line: string) => {
    const size = round(box.dx_mm * scale);
    return {
      key,
      label,
      look,
      line,
      x: toX(box.x_mm),
      y: toY(box.y_mm + box.dy_mm),
      width: size,
      height: round(box.dy_mm * scale),
      named: size > label.length * LETTER + 10 && box.dy_mm * scale > 15,
    };
  };

  const boxes = fit.boxes
    .filter((box) => !hidden.has(box.line))
    .sort((a, b) => a.z_mm + a.dz_mm - (b.z_mm + b.dz_mm));
  return {
    width,
    height: round(TOP + (high - low) * scale + FOOT),
    blocks: boxes.map((box, index) =>
      place(box, `${box.piece}/${box.label}/${index}`, box.label, box.look, box.line),
    ),
    plugs: fit.plugs.map((box, index) => {
      const at = place(box, `plug/${index}`, box.label, "plug", box.line);
      const toRight = box.x_mm >= length;
      const toLeft = box.x_mm + box.dx_mm <= 0;
      return {
        ...at,
        textX: toRight ? at.x + at.width + 6 : toLeft ? at.x - 6 : at.x + at.width / 2,
        textY: toRight || toLeft ? at.y + at.height / 2 + 4 : at.y + at.height + 14,
        anchor: toRight ? ("start" as const) : toLeft ? ("end" as const) : ("middle" as const),
      };
    }),
    overlaps: fit.overlaps.map((entry, index) =>
      place(
        entry,
        `overlap/${index}`,
        `${entry.one.label} and ${entry.other.label} overlap`,
        "clash",
        entry.one.line,
      ),
    ),
    access: fit.access.map((zone, index) =>
      place(zone, `access/${index}`, zone.label, "access", zone.line),
    ),
    shell: fit.case && {
      x: toX(-insetX),
      y: toY(across + insetY),
      width: round(fit.case.inner_length_mm * scale),
      height: round(fit.case.inner_width_mm * scale),
      wall: Math.max(2, round(wall * scale)),
      open: fit.case.open,
    },
    openings: fit.case
      ? openingsOf(fit.case, length, across, insetX, insetY, wall).map((strip, index) =>
          place(strip, `opening/${index}`, "opening", "opening", ""),
        )
      : [],
  };
}

/** Each opening as a strip of its wall. */
function openingsOf(
  shell: NonNullable<Fit["case"]>,
  length: number,
  across: number,
  insetX: number,
  insetY: number,
  wall: number,
): Flat[] {
  const strip = (edge: string, from: number, size: number): Flat => {
    switch (edge) {
      case "left":
        return { x_mm: -insetX - wall, y_mm: from, dx_mm: wall, dy_mm: size };
      case "right":
        return { x_mm: length + insetX, y_mm: from, dx_mm: wall, dy_mm: size };
      case "upper":
        return { x_mm: from, y_mm: across + insetY, dx_mm: size, dy_mm: wall };
      default:
        return { x_mm: from, y_mm: -insetY - wall, dx_mm: size, dy_mm: wall };
    }
  };
  const whole = (edge: string) =>
    edge === "left" || edge === "right"
      ? strip(edge, -insetY, shell.inner_width_mm)
      : strip(edge, -insetX, shell.inner_length_mm);
  return [
    ...shell.openings.map((hole) =>
      strip(hole.edge, hole.along_mm - hole.width_mm / 2, hole.width_mm),
    ),
    ...shell.open_edges.map(whole),
  ];
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}
