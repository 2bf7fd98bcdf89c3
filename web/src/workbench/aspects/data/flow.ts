/** A flow as it is typed, and back. Pure. */
import type { Flow } from "../../../api/types";
import { duration, figure, room, stated } from "../../../ui/numbers";
import { positive } from "../../../ui/readNumber";

export const ENDS: Record<Flow["source"], string> = {
  data: "where data are kept",
  boot: "the boot medium",
  network: "the network",
  radio: "the Wi-Fi it joins",
  access_point: "its own Wi-Fi",
  camera: "the camera",
  sound_in: "the microphones",
  video_in: "the picture that comes in",
  software_radio: "the software radio",
  program: "a program on it",
};

export interface FlowText {
  text: string;
  source: Flow["source"];
  sink: Flow["sink"];
  kind: "files" | "stream";
  amount: string;
  within: string;
  fileMb: string;
  stream: string;
  atOnce: string;
  hours: string;
  runs: string;
  stays: boolean;
  during: string;
  protocol: Flow["protocol"];
}

export const EMPTY: FlowText = {
  text: "",
  source: "network",
  sink: "data",
  kind: "files",
  amount: "",
  within: "",
  fileMb: "",
  stream: "",
  atOnce: "1",
  hours: "",
  runs: "",
  stays: false,
  during: "",
  protocol: "newer",
};

const typed = (value: number | null) => (value === null ? "" : `${value}`);

export function textOfFlow(flow: Flow): FlowText {
  return {
    text: flow.text,
    source: flow.source,
    sink: flow.sink,
    kind: flow.stream_mb_s === null ? "files" : "stream",
    amount: typed(flow.amount_gb),
    within: typed(flow.within_min),
    fileMb: typed(flow.file_mb),
    stream: typed(flow.stream_mb_s),
    atOnce: `${flow.at_once}`,
    hours: typed(flow.hours_a_day),
    runs: flow.runs_a_day === 0 ? "" : `${flow.runs_a_day}`,
    stays: flow.stays,
    during: flow.during,
    protocol: flow.protocol,
  };
}

/** An optional figure: null where nothing is typed, undefined where it is none. */
function optional(text: string): number | null | undefined {
  return text.trim() === "" ? null : (positive(text) ?? undefined);
}

/** The flow that was typed, or what is wrong with it. `base` keeps what the form does not show. */
export function flowFrom(
  text: FlowText,
  taken: ReadonlySet<string>,
  base: Flow | null,
): Flow | { wrong: string } {
  const name = text.text.trim();
  if (!name) return { wrong: "Say what moves, such as “a rehearsal to the office”." };
  if (text.source === text.sink) return { wrong: "It goes from one end to another one." };
  const files = text.kind === "files";
  const amount = files ? positive(text.amount) : null;
  const stream = files ? null : positive(text.stream);
  if (files && amount === null)
    return { wrong: "How much is copied at a time? A number of GB, such as 27.6." };
  if (!files && stream === null)
    return { wrong: "How fast does it run? A number of MB/s, such as 3.1." };
  const within = files ? optional(text.within) : null;
  const fileMb = files ? optional(text.fileMb) : null;
  const hours = files ? null : optional(text.hours);
  const runs = files ? optional(text.runs) : null;
  const atOnce = positive(text.atOnce);
  if (within === undefined) return { wrong: "The time allowed is a number of minutes, or empty." };
  if (fileMb === undefined) return { wrong: "The size of a file is a number of MB, or empty." };
  if (hours === undefined || (hours ?? 0) > 24)
    return { wrong: "Hours a day are a number up to 24, or empty." };
  if (runs === undefined) return { wrong: "How often a day is a number, such as 0.3, or empty." };
  if (atOnce === null || !Number.isInteger(atOnce))
    return { wrong: "How many at once is a whole number." };
  return {
    id: base?.id ?? freeId(name, taken),
    text: name,
    source: text.source,
    sink: text.sink,
    amount_gb: amount,
    within_min: within,
    least_mb_s: files ? (base?.least_mb_s ?? null) : null,
    stream_mb_s: stream,
    file_mb: fileMb,
    protocol: text.protocol,
    at_once: atOnce,
    hours_a_day: hours,
    runs_a_day: runs ?? 0,
    stays: text.stays,
    during: text.during.trim(),
  };
}

function freeId(name: string, taken: ReadonlySet<string>): string {
  const stem = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 40);
  const first = stem || "flow";
  if (!taken.has(first)) return first;
  let number = 2;
  while (taken.has(`${first}-${number}`)) number += 1;
  return `${first}-${number}`;
}

/** A flow in a line: `27.6 GB within 20 min, from the data disks to the network`. */
export function flowWords(flow: Flow): string {
  const what =
    flow.stream_mb_s === null
      ? room(flow.amount_gb ?? 0) +
        (flow.file_mb === null ? "" : ` in files of ${stated(flow.file_mb, "MB")}`) +
        (flow.within_min === null ? "" : ` within ${duration(flow.within_min)}`)
      : `${figure(flow.stream_mb_s * flow.at_once, "MB/s")} without a gap`;
  return `${what}, from ${ENDS[flow.source]} to ${ENDS[flow.sink]}`;
}
