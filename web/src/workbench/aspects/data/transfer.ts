/** A flow as it is typed, and back. Pure. */
import type { Transfer } from "../../../api/types";
import { duration, figure, capacity, stated } from "../../../ui/numbers";
import { positive } from "../../../ui/readNumber";
import { ENDS } from "../../../api/labels";

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
  if (!name) return { wrong: "Enter a name, for example “rehearsal to the office”." };
  if (text.source === text.target) return { wrong: "Choose a different source and target." };
  const files = text.kind === "files";
  const amount = files ? positive(text.amount) : null;
  const stream = files ? null : positive(text.stream);
  if (files && amount === null) return { wrong: "Enter the amount in GB, for example 27.6." };
  if (!files && stream === null) return { wrong: "Enter the rate in MB/s, for example 3.1." };
  const within = files ? optional(text.within) : null;
  const fileMb = files ? optional(text.fileMb) : null;
  const hours = files ? null : optional(text.hours);
  const runs = files ? optional(text.runs) : null;
  const atOnce = positive(text.atOnce);
  if (within === undefined) return { wrong: "Enter the time limit in minutes, or leave it empty." };
  if (fileMb === undefined) return { wrong: "Enter the file size in MB, or leave it empty." };
  if (hours === undefined || (hours ?? 0) > 24)
    return { wrong: "Enter up to 24 hours per day, or leave it empty." };
  if (runs === undefined)
    return { wrong: "Enter a number per day, for example 0.3, or leave it empty." };
  if (atOnce === null || !Number.isInteger(atOnce))
    return { wrong: "Enter a whole number of streams." };
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
  const first = stem || "transfer";
  if (!taken.has(first)) return first;
  let number = 2;
  while (taken.has(`${first}-${number}`)) number += 1;
  return `${first}-${number}`;
}

/** A flow in a line: `27.6 GB within 20 min, from the data disks to the network`. */
export function transferWords(transfer: Transfer): string {
  const what =
    transfer.stream_mb_s === null
      ? capacity(transfer.amount_gb ?? 0) +
        (transfer.file_mb === null ? "" : ` in files of ${stated(transfer.file_mb, "MB")}`) +
        (transfer.within_min === null ? "" : ` within ${duration(transfer.within_min)}`)
      : `${figure(transfer.stream_mb_s * transfer.at_once, "MB/s")} without a gap`;
  return `${what}, from ${natural(ENDS[transfer.source])} to ${natural(ENDS[transfer.target])}`;
}

/** A label within a sentence; what is written in capitals stays. */
function natural(label: string): string {
  return /^[A-Z][a-z]+(?!-)/.test(label) ? label.charAt(0).toLowerCase() + label.slice(1) : label;
}
