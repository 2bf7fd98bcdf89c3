import { useId } from "react";

import { Hatch } from "../../../ui/Hatch";
import { figure, spareText } from "../../../ui/numbers";
import { rulerLayout } from "../../../ui/rulerLayout";
import type { PowerBox, PowerLayout } from "./powerLayout";
import type { StateMargin } from "./powerTree";

interface Props {
  layout: PowerLayout;
  stateLabel: string;
  /** The margin of the open snag: where it is judged is brought out. */
  litMargin: string | null;
}

/** The DC tree as leads and plugs: width by current, a hatched lead where a limit is passed. */
export function PowerDrawing({ layout, stateLabel, litMargin }: Props) {
  const hatch = useId();
  return (
    <svg
      className="drawing"
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      role="img"
      aria-label={`Power tree, ${stateLabel}: cables from the power source to every load`}
    >
      <Hatch id={hatch} />
      {layout.cables
        .filter((cable) => litMargin !== null && cable.margins.includes(litMargin))
        .map((cable) => (
          <path key={cable.id} className="lead-glow" d={cable.path} strokeWidth={cable.width + 8} />
        ))}
      {layout.cables.map((cable) => (
        <path
          key={cable.id}
          className={`lead ${cable.severity === "tight" ? "tight" : ""}`}
          d={cable.path}
          strokeWidth={cable.width}
          style={cable.severity === "problem" ? { stroke: `url(#${hatch})` } : undefined}
        />
      ))}
      {layout.boxes.map((box) => (
        <Node key={box.id} box={box} down={layout.down ?? false} />
      ))}
    </svg>
  );
}

const LINE = 13;

function Node({ box, down }: { box: PowerBox; down: boolean }) {
  const fill = box.severity === "problem" ? "var(--problem)" : "var(--ink)";
  const names = box.names ?? (box.words === "beside" ? [box.label] : box.label.split(/(?<=,) /));
  const lines = [...names, `${figure(box.voltageV, "V")}, ${figure(box.currentA, "A")}`];
  const place = down ? wordsRight(box, lines.length) : wordsAt(box, lines.length);
  const [wide, tall] = down ? [box.size, 8] : [8, box.size];
  return (
    <g>
      <rect
        x={box.x - wide / 2}
        y={box.y - tall / 2}
        width={wide}
        height={tall}
        rx={2}
        style={{ fill }}
      />
      {lines.map((line, index) => (
        <text
          key={line}
          x={place.x}
          y={place.y + index * LINE}
          textAnchor={box.words.endsWith("left") ? "end" : "start"}
          className={index < names.length ? "strong" : "small"}
        >
          {line}
        </text>
      ))}
      {box.ruler && <NodeRuler ruler={box.ruler} x={place.rulerX} y={place.rulerY} />}
    </g>
  );
}

/** First baseline of the words, and where the ruler goes: below them, or below the bar. */
function wordsAt(box: PowerBox, count: number) {
  const bottom = box.y + box.size / 2;
  const above = box.y - box.size / 2 - 5 - (count - 1) * LINE;
  switch (box.words) {
    case "beside":
      return { x: box.x + 11, y: box.y - 2, rulerX: box.x + 11, rulerY: box.y + 20 };
    case "below":
      return { x: box.x - 4, y: bottom + 14, rulerX: box.x - 4, rulerY: bottom + 8 + count * LINE };
    case "below-left":
      return {
        x: box.x + 4,
        y: bottom + 14,
        rulerX: box.x + 4 - RULER,
        rulerY: bottom + 8 + count * LINE,
      };
    case "above":
      return { x: box.x - 4, y: above, rulerX: box.x - 4, rulerY: bottom + 8 };
    case "above-left":
      return { x: box.x + 4, y: above, rulerX: box.x + 4 - RULER, rulerY: above - LINE - 24 };
  }
}

/** Right of a bar that lies flat. */
function wordsRight(box: PowerBox, count: number) {
  const x = box.x + box.size / 2 + 8;
  return { x, y: box.y + 5, rulerX: x, rulerY: box.y + count * LINE };
}

const RULER = 54;

function NodeRuler({ ruler, x, y }: { ruler: StateMargin; x: number; y: number }) {
  const { limitX, bar } = rulerLayout(ruler.share, null, null, RULER);
  const tone = ruler.severity === "note" ? "ok" : ruler.severity;
  return (
    <g transform={`translate(${x} ${y})`}>
      <title>{ruler.label}</title>
      <line x1={0} x2={RULER} y1={4} y2={4} stroke="var(--hairline-strong)" strokeWidth={1} />
      <rect x={bar.x} y={1} width={bar.width} height={6} fill={`var(--${tone}-fill)`} />
      <line x1={limitX} x2={limitX} y1={-2} y2={10} stroke="var(--ink)" strokeWidth={1.5} />
      <text x={0} y={21} className={`small tone-${tone}`}>
        {spareText(ruler.spare, ruler.unit)}
      </text>
    </g>
  );
}
