/** From the fit report to a side elevation to scale: x along the board, z up. Pure. */
import type { Margin, Report, Severity } from "../../../api/types";
import { sides } from "../../../ui/numbers";
import { MM_AN_INCH, shownUnit, withSign } from "../../../ui/displayUnits";

export interface FitBlock {
  key: string;
  label: string;
  look: string;
  line: string;
  x: number;
  y: number;
  width: number;
  height: number;
  /** Reaches through the lid or the floor. */
  clashes: boolean;
}

/** A layer named at the right, with a leader to it. */
export interface FitName {
  key: string;
  text: string;
  line: string;
  fromX: number;
  fromY: number;
  y: number;
}

export interface FitGap {
  key: string;
  x: number;
  from: number;
  to: number;
  margin: Margin;
  severity: Severity;
}

export interface FitBetween {
  key: string;
  x: number;
  from: number;
  to: number;
  gapMm: number;
}

export interface FitZone {
  key: string;
  label: string;
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface FitLayout {
  width: number;
  height: number;
  /** Pixels for a millimetre. */
  scale: number;
  blocks: FitBlock[];
  names: FitName[];
  namesX: number;
  shell: {
    x: number;
    y: number;
    width: number;
    height: number;
    wall: number;
    open: boolean;
    label: string;
  } | null;
  gaps: FitGap[];
  /** Free height between two layers that face each other. */
  between: FitBetween[];
  /** Room that two pieces both want. */
  overlaps: FitZone[];
  /** Room for a hand or a plug. */
  access: FitZone[];
  ticks: { x: number; label: string }[];
  axisY: number;
}

const SIDE = 26;
const TOP = 30;
const AXIS = 34;
const TICKS_APART = 26;
const NAME_ROOM = 128;
const NAME_STEP = 17;
/** What is named at the side; sockets carry their names themselves. */
const LAYERS = new Set(["pcb", "drive", "sink", "fan"]);

/** `width` and `height` are the room there is. [px] */
export function fitLayout(report: Report, width: number, height: number): FitLayout | null {
  const { fit } = report;
  const boardLength = fit.board_length_mm;
  const thickness = fit.board_thickness_mm;
  if (boardLength === null || thickness === null) return null;
  const shell = fit.case;
  const lid = shell ? shell.max_above_mm : null;
  const floor = shell ? -(thickness + shell.max_below_mm) : null;
  const from = shell ? shell.inner_x_mm : 0;
  const to = shell ? from + shell.inner_length_mm : boardLength;
  const wall = shell ? shell.wall_mm : 0;

  const boxes = fit.boxes;
  const drawn = [...boxes, ...fit.access];
  const left = Math.min(from - wall, ...drawn.map((box) => box.x_mm));
  const right = Math.max(to + wall, ...drawn.map((box) => box.x_mm + box.dx_mm));
  const top = Math.max((lid ?? 0) + wall, ...boxes.map((box) => box.z_mm + box.dz_mm)) + 3;
  const bottom = Math.min((floor ?? 0) - wall, ...boxes.map((box) => box.z_mm)) - 3;

  const scale = Math.min(
    (width - 2 * SIDE - NAME_ROOM) / (right - left),
    (height - TOP - AXIS) / (top - bottom),
    7,
  );
  const offset = Math.max(SIDE, (width - NAME_ROOM - (right - left) * scale) / 2);
  const toX = (mm: number) => round(offset + (mm - left) * scale);
  const toY = (mm: number) => round(TOP + (top - mm) * scale);

  const blocks = [...boxes]
    .sort((a, b) => b.y_mm - a.y_mm)
    .map((box, index) => ({
      key: `${box.line}/${box.label}/${index}`,
      label: box.label,
      look: box.look,
      line: box.line,
      x: toX(box.x_mm),
      y: toY(box.z_mm + box.dz_mm),
      width: round(box.dx_mm * scale),
      height: Math.max(1.5, round(box.dz_mm * scale)),
      clashes:
        (lid !== null && box.z_mm + box.dz_mm > lid + 1e-6) ||
        (floor !== null && box.z_mm < floor - 1e-6),
    }));

  const margins = new Map(report.margins.map((margin) => [margin.id, margin]));
  const gaps = fit.reaches.flatMap((reach) => {
    const margin = reach.margin === null ? undefined : margins.get(reach.margin);
    if (!margin || lid === null || floor === null) return [];
    const up = reach.side === "above";
    const reached = up ? toY(reach.reach_mm) : toY(-thickness - reach.reach_mm);
    const end = up ? toY(lid) : toY(floor);
    const x = toX(up ? boardLength * 0.66 : boardLength * 0.5);
    return [{ key: reach.side, x, from: reached, to: end, margin, severity: margin.severity }];
  });

  const zone = (
    box: { x_mm: number; z_mm: number; dx_mm: number; dz_mm: number },
    label: string,
    key: string,
  ): FitZone => ({
    key,
    label,
    x: toX(box.x_mm),
    y: toY(box.z_mm + box.dz_mm),
    width: round(box.dx_mm * scale),
    height: round(box.dz_mm * scale),
  });

  const bottomY = toY(bottom);
  return {
    width,
    height: bottomY + AXIS,
    scale,
    blocks,
    names: namesOf(blocks),
    namesX: round(toX(right) + 14),
    shell:
      shell && lid !== null && floor !== null
        ? {
            x: toX(from),
            y: toY(lid),
            width: round(shell.inner_length_mm * scale),
            height: round((lid - floor) * scale),
            wall: Math.max(2, round(wall * scale)),
            open: shell.open,
            label: `${shell.label}, inside ${sides([shell.inner_length_mm, shell.inner_width_mm], "mm")}`,
          }
        : null,
    gaps,
    between: fit.gaps.map((gap, index) => ({
      key: `${gap.below}/${gap.above}`,
      x: toX(boardLength * (0.3 - 0.08 * index)),
      from: toY(gap.to_mm),
      to: toY(gap.from_mm),
      gapMm: gap.gap_mm,
    })),
    overlaps: fit.overlaps.map((entry, index) =>
      zone(entry, `${entry.one.label} and ${entry.other.label} overlap`, `overlap/${index}`),
    ),
    access: fit.access.map((entry, index) => zone(entry, entry.label, `access/${index}`)),
    ticks: ticksTo(to, scale).map(({ mm, label }) => ({ x: toX(mm), label })),
    axisY: bottomY + 8,
  };
}

/** Names from top to bottom, moved apart where layers lie close. */
function namesOf(blocks: FitBlock[]): FitName[] {
  const layers = blocks.filter((block) => LAYERS.has(block.look));
  layers.sort((a, b) => a.y + a.height / 2 - (b.y + b.height / 2));
  let last = -Infinity;
  return layers.map((block) => {
    const fromY = round(block.y + block.height / 2);
    const y = Math.max(fromY, last + NAME_STEP);
    last = y;
    return {
      key: block.key,
      text: block.label,
      line: block.line,
      fromX: round(block.x + block.width),
      fromY,
      y,
    };
  });
}

/** Marks of the axis: centimetres or half inches, as many of them apart as their figures need. */
function ticksTo(end: number, scale: number): { mm: number; label: string }[] {
  const inch = shownUnit("mm") === "in";
  const unit = inch ? MM_AN_INCH : 1;
  const step =
    (inch ? [0.5, 1, 2, 4] : [10, 20, 50, 100]).find(
      (step) => step * unit * scale >= TICKS_APART,
    ) ?? (inch ? 10 : 200);
  const mm = step * unit;
  return Array.from({ length: Math.floor(end / mm) + 1 }, (_, index) => ({
    mm: index * mm,
    label: withSign(String(index * step)),
  }));
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}
