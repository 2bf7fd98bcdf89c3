/** Places the way of a flow: posts with channels between them. Pure; rates come from the report. */
import type { DataLink, Moved } from "../../../api/types";
import { bare, figure } from "../../../ui/numbers";
import { wrapped } from "../../../ui/wrapped";

const SIDE = 34;
const LABELS = 62;
const TALL = 64;
const LEAST = 9;
const LOW_MB_S = 4;
const HIGH_MB_S = 1200;
const CHAR = 6.3;
/** Below this a channel has no room for its words beside each other: the way is told downwards. */
const NARROWEST = 92;

export interface Channel {
  link: DataLink;
  x: number;
  width: number;
  top: number;
  height: number;
  /** How much of the height is filled by what passes. */
  filled: number;
  bottleneck: boolean;
  label: string[];
  figures: string;
  below: string[];
}

export interface Post {
  x: number;
  label: string[];
}

/** How tall a channel is drawn: the decades between a slow bus and a fast lane. */
export function channelHeight(rate: number): number {
  const share = Math.log(rate / LOW_MB_S) / Math.log(HIGH_MB_S / LOW_MB_S);
  return LEAST + Math.min(1, Math.max(0, share)) * (TALL - LEAST);
}

/** The channels of a way in a drawing so wide. */
export function channels(moved: Moved, width: number) {
  const { links } = moved;
  const step = (width - 2 * SIDE) / links.length;
  const letters = Math.floor((step - 8) / CHAR);
  const middle = LABELS + TALL / 2;
  const drawn: Channel[] = links.map((link, index) => {
    const height = channelHeight(link.mb_s);
    const told = [link.note, ...sharing(link)].filter(Boolean).join("; ");
    return {
      link,
      x: SIDE + index * step,
      width: step,
      top: middle - height / 2,
      height,
      filled: height * Math.min(1, link.taken_mb_s / link.mb_s),
      bottleneck: link.id === moved.bottleneck,
      label: wrapped(link.label, letters).slice(0, 3),
      figures: usedOf(link),
      below: wrapped(told, letters).slice(0, 4),
    };
  });
  const names = [moved.begins, ...links.map((link) => link.to)];
  const posts: Post[] = names.map((name, index) => ({
    x: SIDE + index * step,
    label: name === names[index - 1] ? [] : wrapped(name, letters).slice(0, 3),
  }));
  const lines = Math.max(...drawn.map((channel) => channel.below.length));
  const heads = Math.max(...drawn.map((channel) => channel.label.length));
  const foot = LABELS + TALL + 18 + lines * 14;
  return {
    channels: drawn,
    posts,
    top: LABELS,
    tall: TALL,
    begin: LABELS - 8 - 15 * (heads + 1),
    foot,
    height: foot + 46,
    fits: step >= NARROWEST,
  };
}

/** `26 of 112 MB/s`; a full one says so. */
export function usedOf(link: DataLink): string {
  const lets = figure(link.mb_s, "MB/s");
  if (link.full) return `${lets}: full`;
  return `${bare(link.taken_mb_s, "MB/s")} of ${lets}`;
}

function sharing(link: DataLink): string[] {
  return link.shared_with.length > 0 ? [`shared with ${link.shared_with.join(" and ")}`] : [];
}

/** Where rates stand on an axis from zero: the position of each, and three to six ticks below it. */
export function rateAxis(rates: number[], start: number, end: number) {
  const high = Math.max(...rates) * 1.05;
  const at = (rate: number) => start + (rate / high) * (end - start);
  const decade = 10 ** Math.floor(Math.log10(high / 3));
  const step = [5, 2, 1].map((times) => times * decade).find((each) => high / each >= 3) ?? decade;
  const count = Math.floor(high / step);
  return { at, ticks: Array.from({ length: count + 1 }, (_, place) => place * step) };
}
