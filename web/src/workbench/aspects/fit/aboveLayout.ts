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
  /** Pixels a millimetre. */
  scale: number;
  /** The main board, where its owner may move it. */
  movable: AboveBlock | null;
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
  const inner = insideOf(fit, length, across);
  const flats: Flat[] = [...fit.boxes, ...fit.beside, ...fit.plugs];
  const left = Math.min(inner.x_mm - wall, ...flats.map((box) => box.x_mm));
  const right = Math.max(
    inner.x_mm + inner.dx_mm + wall,
    ...flats.map((box) => box.x_mm + box.dx_mm),
  );
  const low = Math.min(inner.y_mm - wall, ...flats.map((box) => box.y_mm));
  const high = Math.max(
    inner.y_mm + inner.dy_mm + wall,
    ...flats.map((box) => box.y_mm + box.dy_mm),
  );
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

  const boxes = [...fit.boxes, ...fit.beside]
    .filter((box) => !hidden.has(box.line))
    .sort((a, b) => a.z_mm + a.dz_mm - (b.z_mm + b.dz_mm));
  const main = fit.boxes[0];
  return {
    width,
    scale,
    movable:
      fit.case?.drilled && main ? place(main, "movable", main.label, "movable", main.line) : null,
    height: round(TOP + (high - low) * scale + FOOT),
    blocks: boxes.map((box, index) =>
      place(box, `${box.item}/${box.label}/${index}`, box.label, box.look, box.line),
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
      x: toX(inner.x_mm),
      y: toY(inner.y_mm + inner.dy_mm),
      width: round(fit.case.inner_length_mm * scale),
      height: round(fit.case.inner_width_mm * scale),
      wall: Math.max(2, round(wall * scale)),
      open: fit.case.open,
    },
    openings: fit.case
      ? openingsOf(fit.case, inner, wall).map((strip, index) =>
          place(strip, `opening/${index}`, "opening", "opening", ""),
        )
      : [],
  };
}

/** The inside of the case, or the board where there is none. */
function insideOf(fit: Fit, length: number, across: number): Flat {
  const shell = fit.case;
  if (!shell) return { x_mm: 0, y_mm: 0, dx_mm: length, dy_mm: across };
  return {
    x_mm: shell.inner_x_mm,
    y_mm: shell.inner_y_mm,
    dx_mm: shell.inner_length_mm,
    dy_mm: shell.inner_width_mm,
  };
}

/** Each opening as a strip of its wall. */
function openingsOf(shell: NonNullable<Fit["case"]>, inner: Flat, wall: number): Flat[] {
  const strip = (edge: string, from: number, size: number): Flat => {
    switch (edge) {
      case "left":
        return { x_mm: inner.x_mm - wall, y_mm: from, dx_mm: wall, dy_mm: size };
      case "right":
        return { x_mm: inner.x_mm + inner.dx_mm, y_mm: from, dx_mm: wall, dy_mm: size };
      case "upper":
        return { x_mm: from, y_mm: inner.y_mm + inner.dy_mm, dx_mm: size, dy_mm: wall };
      default:
        return { x_mm: from, y_mm: inner.y_mm - wall, dx_mm: size, dy_mm: wall };
    }
  };
  const whole = (edge: string) =>
    edge === "left" || edge === "right"
      ? strip(edge, inner.y_mm, inner.dy_mm)
      : strip(edge, inner.x_mm, inner.dx_mm);
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
