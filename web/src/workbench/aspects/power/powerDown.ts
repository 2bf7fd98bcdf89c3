/** The DC tree turned downwards, for narrow rooms: a row for each node, its words beside it. Pure. */
import type { Report } from "../../../api/types";
import { wrapped } from "../../../ui/wrapped";
import type { PowerBox, PowerLayout } from "./powerLayout";
import {
  branches,
  idOf,
  labelOf,
  marginsOf,
  round,
  rulerOf,
  thicknessOf,
  type Branch,
} from "./powerTree";

const TOP = 10;
const LEFT = 10;
const LINE = 13;
const RULER_ROOM = 26;
const BETWEEN = 26;
/** A lead stands clear of the bar and of the leads beside it. */
const APART = 3;
const LETTER = 7;
/** How far over its bar a lead begins to bend. */
const BEND = 24;

/** `state` is an index into the report's states; `width` the room there is. [px] */
export function powerDown(report: Report, state: number, width: number): PowerLayout {
  const roots = branches(report, state);
  const thickness = thicknessOf(roots);
  const layout: PowerLayout = { width, height: 0, boxes: [], cables: [], down: true };
  let y = TOP;

  /** Puts a branch with its bar's left edge at `left`, and all below it right of its leads. */
  const place = (branch: Branch, left: number): PowerBox => {
    const widths = branch.children.map((child) => thickness(child.current));
    const bundle = widths.reduce((sum, cable) => sum + cable + APART, 0);
    const size = Math.max(12, bundle + 4, thickness(branch.current) + 6);
    const ruler = rulerOf(branch, report, state);
    const label = labelOf(branch);
    const letters = Math.floor((width - left - size - 12) / LETTER);
    const box: PowerBox = {
      id: idOf(branch),
      label,
      line: branch.node.line,
      x: round(left + size / 2),
      y: round(y + 4),
      size: round(size),
      voltageV: branch.node.voltage_v[state] ?? 0,
      currentA: branch.current,
      isLeaf: branch.children.length === 0,
      words: "beside",
      names: wrapped(label, letters),
      ruler,
      severity: ruler?.severity ?? "ok",
    };
    layout.boxes.push(box);
    y += ((box.names?.length ?? 1) + 1) * LINE + (ruler ? RULER_ROOM : 0) + BETWEEN;
    // The first child is the nearest below: its lead is the one on the right, over none of the rest.
    let right = left + size - 2;
    branch.children.forEach((child, index) => {
      const cable = widths[index] ?? 0;
      const x = right - cable / 2;
      right -= cable + APART;
      const target = place(child, round(left + size + 2));
      const bend = target.y - BEND;
      layout.cables.push({
        id: target.id,
        path: `M${round(x)} ${box.y}V${round(bend)}C${round(x)} ${target.y - 8} ${target.x} ${round(bend + 6)} ${target.x} ${target.y}`,
        width: cable,
        severity: target.severity,
        currentA: target.currentA,
        margins: marginsOf(child),
      });
    });
    return box;
  };

  for (const root of roots) place(root, LEFT);
  layout.height = y;
  return layout;
}
