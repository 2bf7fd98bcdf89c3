import { useId } from "react";

import { Hatch } from "../../../ui/Hatch";
import { spareText } from "../../../ui/numbers";
import type { FitBlock, FitGap, FitLayout } from "./fitLayout";

interface Props {
  layout: FitLayout;
  /** Lines of the kit to bring out. */
  lit: Set<string>;
}

/** The kit from the side, to scale, in its case. */
export function FitDrawing({ layout, lit }: Props) {
  const hatch = useId();
  const { shell } = layout;
  return (
    <svg
      className="drawing"
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      role="img"
      aria-label="Side elevation of the kit in its case, to scale"
    >
      <Hatch id={hatch} />
      {shell && (
        <rect
          className={`case-wall ${shell.open ? "open" : ""}`}
          x={shell.x - shell.wall / 2}
          y={shell.y - shell.wall / 2}
          width={shell.width + shell.wall}
          height={shell.height + shell.wall}
          rx={4}
          strokeWidth={shell.open ? 1.5 : shell.wall}
        />
      )}
      {layout.blocks.map((block) => (
        <Block key={block.key} block={block} lit={lit.has(block.line)} hatch={hatch} />
      ))}
      {layout.names.map((name) => (
        <g key={name.key}>
          <path
            className="leader"
            d={`M${name.fromX} ${name.fromY}L${layout.namesX - 12} ${name.y}h8`}
          />
          <text x={layout.namesX} y={name.y + 4} className={lit.has(name.line) ? "strong" : ""}>
            {name.text}
          </text>
        </g>
      ))}
      {layout.gaps.map((gap) => (
        <Gap key={gap.key} gap={gap} />
      ))}
      <line
        className="dim"
        x1={layout.ticks[0]?.x}
        x2={layout.ticks.at(-1)?.x}
        y1={layout.axisY}
        y2={layout.axisY}
      />
      {layout.ticks.map((tick) => (
        <g key={tick.label}>
          <line
            className="dim"
            x1={tick.x}
            x2={tick.x}
            y1={layout.axisY - 3}
            y2={layout.axisY + 3}
          />
          <text x={tick.x} y={layout.axisY + 17} textAnchor="middle" className="small">
            {tick.label}
          </text>
        </g>
      ))}
    </svg>
  );
}

const LETTER = 6.4;

function Block({ block, lit, hatch }: { block: FitBlock; lit: boolean; hatch: string }) {
  const named =
    block.look === "socket" && block.height > 15 && block.width > block.label.length * LETTER + 8;
  return (
    <g>
      <title>{block.label}</title>
      <rect
        className={`block ${block.look} ${lit ? "lit" : ""} ${block.clashes ? "clash" : ""}`}
        x={block.x}
        y={block.y}
        width={block.width}
        height={block.height}
        rx={1.5}
        style={block.clashes ? { fill: `url(#${hatch})` } : undefined}
      />
      {named && (
        <text x={block.x + 6} y={block.y + Math.min(block.height / 2 + 4, 18)} className="in-block">
          {block.label}
        </text>
      )}
    </g>
  );
}

function Gap({ gap }: { gap: FitGap }) {
  const tone = gap.severity === "note" ? "sound" : gap.severity;
  const middle = (gap.from + gap.to) / 2;
  return (
    <g>
      <path
        className={`dim tone-${tone}`}
        d={`M${gap.x} ${gap.from}V${gap.to}M${gap.x - 4} ${gap.from}h8M${gap.x - 4} ${gap.to}h8`}
      />
      <text x={gap.x + 7} y={middle + 4} className={`strong tone-${tone}`}>
        {spareText(gap.margin.spare, "mm")}
      </text>
    </g>
  );
}
