import type { Moved } from "../../../api/types";
import { useWidth } from "../../../ui/useWidth";
import { litLines, useBench } from "../../bench";
import { channelHeight, channels, usedOf, type Channel } from "./channels";

interface Props {
  moved: Moved;
  /** Whether less passes than is asked for, so that the neck is a snag and no mere fact. */
  short: boolean;
  link: string | null;
  onChoose: (link: string) => void;
}

/** The way of a byte from who asks to the medium; the narrowest channel is the neck. */
export function PathDrawing({ moved, short, link, onChoose }: Props) {
  const [frame, width] = useWidth(640);
  const layout = channels(moved, width);
  const told = moved.links.map((entry) => `${entry.label}, ${usedOf(entry)}`).join("; then ");
  return (
    <div ref={frame} className="way-frame">
      {layout.fits ? (
        <svg
          className="drawing way-drawing"
          viewBox={`0 ${layout.begin} ${width} ${layout.height - layout.begin}`}
          role="group"
          aria-label={`Data path from ${moved.begins}: ${told}`}
        >
          {layout.channels.map((channel) => (
            <ChannelShape
              key={channel.link.id}
              channel={channel}
              foot={layout.top + layout.tall}
              short={short}
              chosen={channel.link.id === link}
              onChoose={onChoose}
            />
          ))}
          {layout.posts.map((post, index) => (
            <g key={index} className="way-post">
              <rect x={post.x - 4} y={layout.top - 2} width={8} height={layout.tall + 4} rx={1.5} />
              {post.label.map((line, row) => (
                <text
                  key={row}
                  className="strong"
                  x={end(post.x, width)}
                  y={layout.foot + 14 + row * 14}
                  textAnchor={anchor(post.x, width)}
                >
                  {line}
                </text>
              ))}
            </g>
          ))}
        </svg>
      ) : (
        <PathList moved={moved} short={short} link={link} onChoose={onChoose} />
      )}
    </div>
  );
}

function anchor(x: number, width: number) {
  return x < 60 ? "start" : x > width - 60 ? "end" : "middle";
}

/** The words of the outermost posts begin and end at the edge of the drawing. */
function end(x: number, width: number) {
  return x < 60 ? 0 : x > width - 60 ? width : x;
}

interface ShapeProps {
  channel: Channel;
  foot: number;
  short: boolean;
  chosen: boolean;
  onChoose: (link: string) => void;
}

function ChannelShape({ channel, foot, short, chosen, onChoose }: ShapeProps) {
  const bench = useBench();
  const { link, x, width, top, height } = channel;
  const lit = chosen || (link.line !== null && litLines(bench).has(link.line));
  const middle = x + width / 2;
  const tone = channel.bottleneck ? (short ? "bottleneck short" : "neck") : "";
  const first = top - 8 - channel.label.length * 15;
  return (
    <g
      className={`way-link ${tone} ${lit ? "lit" : ""}`}
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      onClick={() => onChoose(link.id)}
      onKeyDown={(event) => {
        if (event.key !== "Enter" && event.key !== " ") return;
        event.preventDefault();
        onChoose(link.id);
      }}
    >
      <rect className="reach" x={x} y={first - 14} width={width} height={foot - first + 14} />
      <rect
        className="water"
        x={x}
        y={top + height - channel.filled}
        width={width}
        height={channel.filled}
      />
      <path className="banks" d={`M${x} ${top}h${width}M${x} ${top + height}h${width}`} />
      {channel.label.map((line, row) => (
        <text key={row} className="strong" x={middle} y={first + row * 15} textAnchor="middle">
          {line}
        </text>
      ))}
      <text className="figures" x={middle} y={top - 8} textAnchor="middle">
        {channel.figures}
      </text>
      {channel.below.map((line, row) => (
        <text key={row} className="small" x={middle} y={foot + 16 + row * 14} textAnchor="middle">
          {line}
        </text>
      ))}
    </g>
  );
}

/** The same downwards, where there is no room beside each other. */
function PathList({ moved, short, link, onChoose }: Props) {
  return (
    <ol className="way-list">
      <li className="way-stop">{moved.begins}</li>
      {moved.links.map((entry, index) => (
        <li key={entry.id}>
          <button
            type="button"
            className={`way-step ${entry.id === moved.bottleneck ? (short ? "bottleneck short" : "neck") : ""}`}
            aria-pressed={entry.id === link}
            onClick={() => onChoose(entry.id)}
          >
            <span>{entry.label}</span>
            <span className="tabular">{usedOf(entry)}</span>
            <span
              className="way-bar"
              style={{ width: `${(channelHeight(entry.mb_s) / channelHeight(Infinity)) * 100}%` }}
            >
              <span style={{ width: `${Math.min(1, entry.taken_mb_s / entry.mb_s) * 100}%` }} />
            </span>
            {entry.note && <span className="soft">{entry.note}</span>}
          </button>
          {entry.to && entry.to !== moved.links[index - 1]?.to && (
            <span className="way-stop">{entry.to}</span>
          )}
        </li>
      ))}
    </ol>
  );
}
