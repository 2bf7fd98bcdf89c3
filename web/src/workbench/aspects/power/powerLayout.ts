/** From the supply report to positions: the DC tree left to right, leaves evenly down. Pure. */
import type { Report, Severity } from "../../../api/types";
import {
  branches,
  idOf,
  labelOf,
  marginsOf,
  round,
  rulerOf,
  thicknessOf,
  type Branch,
  type StateMargin,
} from "./powerTree";

export interface PowerBox {
  id: string;
  label: string;
  line: string;
  x: number;
  y: number;
  /** Length of the bar at the node, across the lead that comes to it. [px] */
  size: number;
  voltageV: number;
  currentA: number;
  isLeaf: boolean;
  /** The name in lines, where it is wrapped to its room. */
  names?: string[];
  /** Where the words stand: right of a leaf, else above or below the bar, running right or left. */
  words: "beside" | "above" | "below" | "above-left" | "below-left";
  ruler: StateMargin | null;
  severity: Severity;
}

export interface PowerCable {
  id: string;
  path: string;
  width: number;
  severity: Severity;
  currentA: number;
  /** Margins that judge what passes here. */
  margins: string[];
}

export interface PowerLayout {
  width: number;
  height: number;
  /** The tree runs downwards: bars lie flat. */
  down?: boolean;
  boxes: PowerBox[];
  cables: PowerCable[];
}

const ROW = 74;
const TOP = 34;
const LEFT = 14;
const LEAF_ROOM = 126;
/** More room over two leads that part, as the words stand over the middle of them. [rows] */
const ROOM_FOR_WORDS = 0.3;
/** Columns no narrower than this; a deep tree in little room is drawn smaller instead. [px] */
const NARROWEST = 82;
/** Leads part early, which leaves room for the words of the nodes they lead to. */
const BEND_SHARE = 0.4;
/** `state` is an index into the report's states; `width` the room there is. [px] */
export function powerLayout(report: Report, state: number, width: number): PowerLayout {
  const roots = branches(report, state);
  const deepest = Math.max(1, ...roots.map((root) => firstLevel(root) + depth(root)));
  const columns = Math.max(1, deepest - 1);
  const step = Math.max(NARROWEST, (width - LEFT - LEAF_ROOM) / columns);
  const needed = Math.max(width, LEFT + columns * step + LEAF_ROOM);
  const layout: PowerLayout = { width: needed, height: 0, boxes: [], cables: [] };
  const thickness = thicknessOf(roots);
  let row = 0;

  const place = (branch: Branch, level: number): PowerBox => {
    if (row > 0 && branch.children.length === 2) row += ROOM_FOR_WORDS;
    const below = branch.children.map((child) => place(child, level + 1));
    const first = below[0];
    const last = below[below.length - 1];
    const y = first && last ? (first.y + last.y) / 2 : TOP + row++ * ROW;
    const { node } = branch;
    const ruler = rulerOf(branch, report, state);
    const box: PowerBox = {
      id: idOf(branch),
      label: labelOf(branch),
      line: node.line,
      x: round(LEFT + level * step),
      y: round(y),
      size: Math.max(10, thickness(branch.current) + 6),
      voltageV: node.voltage_v[state] ?? 0,
      currentA: branch.current,
      isLeaf: branch.children.length === 0,
      words: wordsPlace(branch),
      ruler,
      severity: ruler?.severity ?? "ok",
    };
    layout.boxes.push(box);
    addCables(box, below, branch.children);
    return box;
  };

  /** Leads leave a bar stacked by their widths, so that they never lie on each other. */
  const addCables = (from: PowerBox, targets: PowerBox[], children: Branch[]) => {
    const widths = children.map((child) => thickness(child.current));
    let at = from.y - widths.reduce((sum, w) => sum + w, 0) / 2;
    targets.forEach((target, index) => {
      if (target.words === "above-left" && from.y < target.y) target.words = "below-left";
      const cable = widths[index] ?? 0;
      const y = at + cable / 2;
      at += cable;
      layout.cables.push({
        id: target.id,
        path: curve(from.x, y, target.x, target.y),
        width: cable,
        severity: target.severity,
        currentA: target.currentA,
        margins: marginsOf(children[index]),
      });
    });
  };

  roots.forEach((root) => place(root, firstLevel(root)));
  layout.height = TOP + Math.max(1, row) * ROW;
  return layout;
}

/** A source that branches at once has its words on its left, where the first column stays free. */
function firstLevel(root: Branch): number {
  return fans(root) ? 1 : 0;
}

function fans(branch: Branch): boolean {
  return branch.children.length > 1;
}

function depth(branch: Branch): number {
  return 1 + Math.max(0, ...branch.children.map(depth));
}

/**
 * Leads fan out right of a branching node, so its words run left, over the lead that comes to it
 * (or under one that comes from above); and those of a node just before it go below.
 */
function wordsPlace(branch: Branch): PowerBox["words"] {
  const [next] = branch.children;
  if (next === undefined) return "beside";
  if (fans(branch)) return "above-left";
  return fans(next) ? "below" : "above";
}

function curve(x0: number, y0: number, x1: number, y1: number): string {
  const bend = round(x0 + (x1 - x0) * BEND_SHARE);
  return `M${round(x0)} ${round(y0)}C${bend} ${round(y0)} ${bend} ${round(y1)} ${round(x1)} ${round(y1)}`;
}
