import { useId } from "react";

import { Hatch } from "../../../ui/Hatch";
import { figure, spareText } from "../../../ui/numbers";
import { CaseWall } from "./CaseWall";
import type { FitBetween, FitBlock, FitGap, FitLayout } from "./fitLayout";

interface Props {
  layout: FitLayout;
  /** Lines of the kit to bring out. */
  lit: Set<string>;
  /** Whether the ways of plugs and card are shown. */
  access: boolean;
  /** The layer that is drawn large, by its key; null for the whole. */
  near: string | null;
  onNear: (key: string | null) => void;
}

/** The kit from the side, to scale, in its case. */
export function FitDrawing({ layout, lit, access, near, onNear }: Props) {
  const hatch = useId();
  const { shell } = layout;
  return (
    <svg
      className={`drawing ${near === null ? "" : "near"}`}
      viewBox={windowOn(layout, near)}
      style={{ aspectRatio: `${layout.width} / ${layout.height}` }}
      role="group"
      aria-label="Side view of the kit in its case, to scale"
    >
      <Hatch id={hatch} />
      {shell && <CaseWall shell={shell} />}
      {layout.blocks.map((block) => (
        <Block key={block.key} block={block} lit={lit.has(block.line)} hatch={hatch} />
      ))}
      {layout.overlaps.map((zone) => (
        <rect
          key={zone.key}
          className="clash"
          x={zone.x}
          y={zone.y}
          width={zone.width}
          height={zone.height}
          style={{ fill: `url(#${hatch})` }}
        >
          <title>{zone.label}</title>
        </rect>
      ))}
      {access &&
        layout.access.map((zone) => (
          <rect
            key={zone.key}
            className="access-zone"
            x={zone.x}
            y={zone.y}
            width={zone.width}
            height={zone.height}
          >
            <title>{zone.label}</title>
          </rect>
        ))}
      {layout.names.map((name) => (
        <g
          key={name.key}
          className="layer-name"
          role="button"
          tabIndex={0}
          aria-label={near === name.key ? "Show all" : `Enlarge ${name.text} large`}
          onClick={() => onNear(near === name.key ? null : name.key)}
          onKeyDown={(event) => {
            if (event.key === "Enter" || event.key === " ") {
              event.preventDefault();
              onNear(near === name.key ? null : name.key);
            }
          }}
        >
          <path
            className="leader"
            d={`M${name.fromX} ${name.fromY}L${layout.namesX - 12} ${name.y}h8`}
          />
          <rect
            className="name-hit"
            x={layout.namesX - 4}
            y={name.y - 8}
            width={layout.width - layout.namesX}
            height={16}
          />
          <text x={layout.namesX} y={name.y + 4} className={lit.has(name.line) ? "strong" : ""}>
            {name.text}
          </text>
        </g>
      ))}
      {layout.gaps.map((gap) => (
        <Gap key={gap.key} gap={gap} />
      ))}
      {layout.between.map((gap) => (
        <Between key={gap.key} gap={gap} />
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

/** The whole, or the part of it around one layer. */
function windowOn(layout: FitLayout, near: string | null): string {
  const block = layout.blocks.find((entry) => entry.key === near);
  if (!block) return `0 0 ${layout.width} ${layout.height}`;
  const share = Math.min(1, Math.max(0.3, (block.width + 90) / layout.width));
  const width = layout.width * share;
  const height = layout.height * share;
  const x = block.x + block.width / 2 - width / 2;
  const y = block.y + block.height / 2 - height / 2;
  return [x, y, width, height].map((value) => value.toFixed(1)).join(" ");
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
  const tone = gap.severity === "note" ? "ok" : gap.severity;
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

function Between({ gap }: { gap: FitBetween }) {
  const tone = gap.gapMm < 0 ? "problem" : "ok";
  const top = Math.min(gap.from, gap.to);
  const foot = Math.max(gap.from, gap.to);
  return (
    <g>
      <path
        className={`dim tone-${tone}`}
        d={`M${gap.x} ${top}V${foot}M${gap.x - 4} ${top}h8M${gap.x - 4} ${foot}h8`}
      />
      <text x={gap.x - 7} y={(top + foot) / 2 + 4} textAnchor="end" className={`tone-${tone}`}>
        {gap.gapMm < 0 ? `${figure(-gap.gapMm, "mm")} short` : figure(gap.gapMm, "mm")}
      </text>
    </g>
  );
}
