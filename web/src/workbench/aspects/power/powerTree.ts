/** The DC tree of the supply report, as it is drawn whichever way it runs. Pure. */
import type { Margin, Report, Severity, PowerNode } from "../../../api/types";

/** How a margin stands in the state that is drawn. */
export interface StateMargin {
  label: string;
  unit: string;
  spare: number;
  share: number;
  severity: Severity;
}

export interface Branch {
  node: PowerNode;
  children: Branch[];
  isLoad: boolean;
  current: number;
}

const THICKEST = 26;
const THINNEST = 1.5;
const RANK: Record<Severity, number> = { ok: 0, note: 1, tight: 2, problem: 3 };

/** How thick a lead is drawn, by its share of the heaviest current. [px] */
export function thicknessOf(roots: Branch[]): (current: number) => number {
  const heaviest = Math.max(0.1, ...roots.map((root) => root.current));
  return (current) => round(Math.max(THINNEST, (current / heaviest) * THICKEST));
}

/** The forest, without rails that only pass something on, and with loads of their own as leaves. */
export function branches(report: Report, state: number): Branch[] {
  const { nodes } = report.power;
  const children = new Map<string | null, PowerNode[]>();
  for (const node of nodes) children.set(node.parent, [...(children.get(node.parent) ?? []), node]);

  const grow = (node: PowerNode): Branch => {
    const below = (children.get(node.id) ?? []).flatMap((child) => {
      const branch = grow(child);
      return branch.current > 0 || !branch.isLoad ? [branch] : [];
    });
    const used = below.filter((branch) => branch.current > 0 || branch.node.via !== "inside");
    const own = node.loads_a[state] ?? 0;
    const kept = used.flatMap((branch) => (passesOn(branch) ? branch.children : [branch]));
    if (own > 0.0005 && kept.length > 0)
      kept.unshift({ node, children: [], isLoad: true, current: own });
    return { node, children: kept, isLoad: false, current: node.current_a[state] ?? 0 };
  };
  return (children.get(null) ?? []).map(grow);
}

function passesOn(branch: Branch): boolean {
  return (
    branch.node.via === "inside" && branch.node.margins.length === 0 && branch.children.length === 1
  );
}

/** The margin that a node stands worst by, none for a load of its own. */
export function rulerOf(branch: Branch, report: Report, state: number): StateMargin | null {
  if (branch.isLoad) return null;
  const margins = new Map(report.margins.map((margin) => [margin.id, margin]));
  return worst(branch.node.margins, margins, report.power.states[state]?.id ?? "");
}

function worst(ids: string[], margins: Map<string, Margin>, stateId: string): StateMargin | null {
  const mounting = ids.flatMap((id) => {
    const margin = margins.get(id);
    const at = margin?.states.indexOf(stateId) ?? -1;
    if (!margin || at < 0) return [];
    return [
      {
        label: margin.label,
        unit: margin.unit,
        spare: margin.spare_by_state[at] ?? 0,
        share: margin.ruler_by_state[at] ?? 0,
        severity: margin.severity_by_state[at] ?? "ok",
      },
    ];
  });
  mounting.sort((a, b) => RANK[b.severity] - RANK[a.severity] || a.share - b.share);
  return mounting[0] ?? null;
}

/** A load of its own is judged by no margin: those of its rail belong to the rail's lead. */
export function marginsOf(branch: Branch | undefined): string[] {
  return branch === undefined || branch.isLoad ? [] : branch.node.margins;
}

export function labelOf({ node, isLoad }: Branch): string {
  if (!isLoad) return node.label;
  return node.kind === "board" ? "Processor and memory" : "electronics";
}

export function idOf(branch: Branch): string {
  return branch.isLoad ? `${branch.node.id}/load` : branch.node.id;
}

export function round(value: number): number {
  return Math.round(value * 10) / 10;
}
