import { useId } from "react";

import { figure, spareText } from "../../../ui/numbers";
import { rulerLayout } from "../../../ui/rulerLayout";
import type { StateMargin, SupplyBox, SupplyLayout } from "./supplyLayout";

interface Props {
  layout: SupplyLayout;
  stateLabel: string;
  /** Lines of the kit to bring out. */
  lit: Set<string>;
}

/** The DC tree as leads and plugs: width by current, a hatched lead where a limit is passed. */
export function SupplyDrawing({ layout, stateLabel, lit }: Props) {
  const hatch = useId();
  return (
    <svg
      className="drawing"
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      role="img"
      aria-label={`Supply tree, ${stateLabel}: leads from the source to everything that draws current`}
    >
      <pattern
        id={hatch}
        width={7}
        height={7}
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width={7} height={7} fill="var(--stops-pale)" />
        <rect width={2.4} height={7} fill="var(--stops-fill)" />
      </pattern>
      {layout.leads.map((lead) => (
        <path
          key={lead.id}
          className={`lead ${lead.severity === "tight" ? "tight" : ""} ${lit.has(lead.line) ? "lit" : ""}`}
          d={lead.path}
          strokeWidth={lead.width}
          style={lead.severity === "stops" ? { stroke: `url(#${hatch})` } : undefined}
        />
      ))}
      {layout.boxes.map((box) => (
        <Node key={box.id} box={box} />
      ))}
    </svg>
  );
}

function Node({ box }: { box: SupplyBox }) {
  const fill = box.severity === "stops" ? "var(--stops)" : "var(--ink)";
  const textX = box.isLeaf ? box.x + 11 : box.x - 4;
  const textY = box.isLeaf ? box.y - 2 : box.y - box.size / 2 - 18;
  return (
    <g>
      <rect
        x={box.x - 4}
        y={box.y - box.size / 2}
        width={8}
        height={box.size}
        rx={2}
        style={{ fill }}
      />
      <text x={textX} y={textY} className="strong">
        {box.label}
      </text>
      <text x={textX} y={textY + 13} className="small">
        {figure(box.voltageV, "V")}, {figure(box.currentA, "A")}
      </text>
      {box.ruler && (
        <NodeRuler
          ruler={box.ruler}
          x={textX}
          y={box.isLeaf ? textY + 22 : box.y + box.size / 2 + 8}
        />
      )}
    </g>
  );
}

const RULER = 54;

function NodeRuler({ ruler, x, y }: { ruler: StateMargin; x: number; y: number }) {
  const { limitX, bar } = rulerLayout(ruler.share, null, null, RULER);
  const tone = ruler.severity === "note" ? "sound" : ruler.severity;
  return (
    <g transform={`translate(${x} ${y})`}>
      <title>{ruler.label}</title>
      <line x1={0} x2={RULER} y1={4} y2={4} stroke="var(--hairline-strong)" strokeWidth={1} />
      <rect x={bar.x} y={1} width={bar.width} height={6} fill={`var(--${tone}-fill)`} />
      <line x1={limitX} x2={limitX} y1={-2} y2={10} stroke="var(--ink)" strokeWidth={1.5} />
      <text x={0} y={22} className={`small tone-${tone}`}>
        {spareText(ruler.spare, ruler.unit)}
      </text>
    </g>
  );
}
