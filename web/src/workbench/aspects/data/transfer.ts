/** A flow as it is typed, and back. Pure. */
import type { Transfer } from "../../../api/types";
import { duration, figure, room, stated } from "../../../ui/numbers";
import { positive } from "../../../ui/readNumber";

export const ENDS: Record<Transfer["source"], string> = {
  storage: "storage",
  boot_drive: "boot drive",
  network: "network",
  wifi: "Wi-Fi (as a client)",
  access_point: "Wi-Fi access point",
  camera: "camera",
  audio_in: "audio input",
  video_in: "video input",
  sdr: "SDR",
  program: "program on the board",
};

export interface TransferText {
  text: string;
  source: Transfer["source"];
  target: Transfer["target"];
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
  protocol: Transfer["protocol"];
}

export const EMPTY: TransferText = {
  text: "",
  source: "network",
  target: "storage",
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

export function textOfTransfer(transfer: Transfer): TransferText {
  return {
    text: transfer.text,
    source: transfer.source,
    target: transfer.target,
    kind: transfer.stream_mb_s === null ? "files" : "stream",
    amount: typed(transfer.amount_gb),
    within: typed(transfer.within_min),
    fileMb: typed(transfer.file_mb),
    stream: typed(transfer.stream_mb_s),
    atOnce: `${transfer.at_once}`,
    hours: typed(transfer.hours_a_day),
    runs: transfer.runs_a_day === 0 ? "" : `${transfer.runs_a_day}`,
    stays: transfer.stays,
    during: transfer.during,
    protocol: transfer.protocol,
  };
}

/** An optional figure: null where nothing is typed, undefined where it is none. */
function optional(text: string): number | null | undefined {
  return text.trim() === "" ? null : (positive(text) ?? undefined);
}

/** The flow that was typed, or what is wrong with it. `base` keeps what the form does not show. */
export function transferFrom(
  text: TransferText,
  taken: ReadonlySet<string>,
  base: Transfer | null,
): Transfer | { wrong: string } {
  const name = text.text.trim();
  if (!name) return { wrong: "Say what moves, such as “a rehearsal to the office”." };
  if (text.source === text.target) return { wrong: "It goes from one end to another one." };
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
    target: text.target,
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
export function transferWords(transfer: Transfer): string {
  const what =
    transfer.stream_mb_s === null
      ? room(transfer.amount_gb ?? 0) +
        (transfer.file_mb === null ? "" : ` in files of ${stated(transfer.file_mb, "MB")}`) +
        (transfer.within_min === null ? "" : ` within ${duration(transfer.within_min)}`)
      : `${figure(transfer.stream_mb_s * transfer.at_once, "MB/s")} without a gap`;
  return `${what}, from ${ENDS[transfer.source]} to ${ENDS[transfer.target]}`;
}
