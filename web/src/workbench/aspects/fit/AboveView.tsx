import { useId, useState } from "react";
import Button from "react-bootstrap/Button";

import { Hatch } from "../../../ui/Hatch";
import { sides } from "../../../ui/numbers";
import { useWidth } from "../../../ui/useWidth";
import { litLines, useBench } from "../../bench";
import { aboveLayout, type AboveBlock, type AboveLayout } from "./aboveLayout";
import { CaseWall } from "./CaseWall";
import { FloorPlace } from "./FloorPlace";
import { useFloorPlace } from "./floorPlace";

const ROOM_PX = 480;
/** What can be lifted off to see what is under it. */
const LAYERS = new Set(["pcb", "sink", "fan", "drive"]);

/** The kit from above, to scale: outlines, openings, and what is plugged in at which edge. */
export function AboveView() {
  const bench = useBench();
  const { fit } = bench.report;
  const [frame, width] = useWidth(640);
  const [access, setAccess] = useState(false);
  const [hidden, setHidden] = useState<Set<string>>(new Set());
  const stand = useFloorPlace();
  const layout = aboveLayout(fit, width, ROOM_PX, hidden);
  const there = new Set(fit.boxes.filter((box) => LAYERS.has(box.look)).map((box) => box.line));
  const layers = bench.report.lines.filter((line) => there.has(line.id));
  const toggle = (line: string) => {
    const next = new Set(hidden);
    if (!next.delete(line)) next.add(line);
    setHidden(next);
  };
  return (
    <>
      <div className="drawing-bar">
        <Button variant="link" aria-pressed={access} onClick={() => setAccess(!access)}>
          {access ? "Hide" : "Show"} access paths
        </Button>
        {layers.length > 1 && (
          <span role="group" aria-label="Visible layers" className="layer-switches">
            {layers.map((line) => (
              <Button
                key={line.id}
                variant=""
                size="sm"
                aria-pressed={!hidden.has(line.id)}
                onClick={() => toggle(line.id)}
              >
                {line.name}
              </Button>
            ))}
          </span>
        )}
      </div>
      <div ref={frame}>
        {layout ? (
          <AboveDrawing
            layout={layout}
            lit={litLines(bench)}
            access={access}
            onMove={(right, up) => {
              if (!fit.case) return;
              stand({
                x_mm: within(-fit.case.inner_x_mm + right, fit.case.inner_length_mm),
                y_mm: within(-fit.case.inner_y_mm + up, fit.case.inner_width_mm),
              });
            }}
          />
        ) : (
          <p className="soft pt-2">Nothing to draw yet. Add a board.</p>
        )}
      </div>
      <FloorPlace />
      <p className="soft mb-0">
        {fit.case
          ? `${fit.case.label}, inner size ${sides([fit.case.inner_length_mm, fit.case.inner_width_mm], "mm")}. `
          : "No case. "}
        {fit.plugs.length > 0 &&
          `Plugs at the edges: ${fit.plugs.map((plug) => plug.label).join(", ")}.`}
      </p>
    </>
  );
}

/** Half millimetres, and not through a wall: what a hand means. */
function within(mm: number, most: number): number {
  return Math.min(most, Math.max(0, Math.round(mm * 2) / 2));
}

interface DrawingProps {
  layout: AboveLayout;
  lit: Set<string>;
  access: boolean;
  /** The board was dragged so far to the right and up. [mm] */
  onMove: (right: number, up: number) => void;
}

function AboveDrawing({ layout, lit, access, onMove }: DrawingProps) {
  const hatch = useId();
  const { shell } = layout;
  return (
    <svg
      className="drawing"
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      role="img"
      aria-label="Top view of the kit in its case, to scale"
    >
      <Hatch id={hatch} />
      {shell && <CaseWall shell={shell} />}
      {!shell?.open &&
        layout.openings.map((block) => (
          <Rect key={block.key} block={block} className="wall-opening" />
        ))}
      {layout.blocks.map((block) => (
        <g key={block.key}>
          <Rect
            block={block}
            className={`block ${block.look} ${lit.has(block.line) ? "lit" : ""}`}
          />
          {block.named && (
            <text
              x={block.look === "pcb" ? block.x + block.width * 0.58 : block.x + 6}
              y={block.look === "pcb" ? block.y + block.height - 7 : block.y + 14}
              textAnchor={block.look === "pcb" ? "middle" : "start"}
              className={`in-block on-${block.look}`}
            >
              {block.label}
            </text>
          )}
        </g>
      ))}
      {layout.plugs.map((plug) => (
        <g key={plug.key}>
          <Rect block={plug} className={`block plug ${lit.has(plug.line) ? "lit" : ""}`} />
          <text x={plug.textX} y={plug.textY} textAnchor={plug.anchor} className="small">
            {plug.label}
          </text>
        </g>
      ))}
      {layout.overlaps.map((block) => (
        <Rect key={block.key} block={block} className="clash" fill={`url(#${hatch})`} />
      ))}
      {access &&
        layout.access.map((block) => (
          <Rect key={block.key} block={block} className="access-zone" />
        ))}
      {layout.movable && (
        <MovableBoard
          key={`${layout.movable.x}/${layout.movable.y}`}
          block={layout.movable}
          scale={layout.scale}
          onMove={onMove}
        />
      )}
    </svg>
  );
}

interface MovableProps {
  block: AboveBlock;
  scale: number;
  onMove: DrawingProps["onMove"];
}

/** The board under the hand: its outline follows the pointer and is put where it is let go. */
function MovableBoard({ block, scale, onMove }: MovableProps) {
  const [drag, setDrag] = useState<{ x: number; y: number; dx: number; dy: number } | null>(null);
  return (
    <rect
      className={`movable ${drag ? "moving" : ""}`}
      x={block.x + (drag?.dx ?? 0)}
      y={block.y + (drag?.dy ?? 0)}
      width={block.width}
      height={block.height}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrag({ x: event.clientX, y: event.clientY, dx: 0, dy: 0 });
      }}
      onPointerMove={(event) => {
        if (drag) setDrag({ ...drag, dx: event.clientX - drag.x, dy: event.clientY - drag.y });
      }}
      onPointerCancel={() => setDrag(null)}
      onPointerUp={() => {
        setDrag(null);
        if (drag && Math.hypot(drag.dx, drag.dy) > 2) onMove(drag.dx / scale, -drag.dy / scale);
      }}
    >
      <title>{`${block.label}: drag to move`}</title>
    </rect>
  );
}

function Rect({ block, className, fill }: { block: AboveBlock; className: string; fill?: string }) {
  return (
    <rect
      className={className}
      x={block.x}
      y={block.y}
      width={block.width}
      height={block.height}
      rx={1.5}
      style={fill ? { fill } : undefined}
    >
      <title>{block.label}</title>
    </rect>
  );
}
