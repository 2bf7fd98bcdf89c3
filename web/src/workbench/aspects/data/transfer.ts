/** A transfer as it is typed, and back. Pure. */
import { ENDS, FIELDS } from "../../../api/labels";
import type { Transfer } from "../../../api/types";
import { freeId, textOf, valuesOf, type FieldRow } from "../../../ui/fieldText";
import { capacity, duration, figure, stated } from "../../../ui/numbers";

const KIND: FieldRow = {
  ...FIELDS.transfer.protocol,
  label: "Type",
  choices: { files: "Files", stream: "Stream, no gaps" },
};
const needed = <R extends FieldRow>(row: R) => ({ ...row, is_optional: false });
export const ROWS = {
  ...FIELDS.transfer,
  kind: KIND,
  amount_gb: needed(FIELDS.transfer.amount_gb),
  stream_mb_s: needed(FIELDS.transfer.stream_mb_s),
};

const OF_FILES = ["amount_gb", "within_min", "file_mb", "runs_a_day"] as const;
const OF_STREAMS = ["stream_mb_s", "at_once", "file_mb", "hours_a_day"] as const;
const ALL = [
  ...(["text", "source", "target", "kind"] as const),
  ...OF_FILES,
  ...(["stream_mb_s", "at_once", "hours_a_day"] as const),
  ...(["protocol", "during", "stays"] as const),
];
export type TransferText = ReturnType<typeof textOfTransfer>;

/** The fields that are asked for: files or a stream. */
export function namesFor(text: { kind: string | boolean }) {
  const others: readonly string[] = text.kind === "stream" ? OF_FILES : OF_STREAMS;
  return ALL.filter((name) => !others.includes(name));
}

export function textOfTransfer(transfer: Transfer) {
  const kind = transfer.stream_mb_s === null ? "files" : "stream";
  return textOf(ROWS, ALL, { ...transfer, kind });
}

const NOTHING: Transfer = {
  id: "",
  text: "",
  source: "network",
  target: "storage",
  amount_gb: null,
  within_min: null,
  least_mb_s: null,
  stream_mb_s: null,
  file_mb: null,
  protocol: "newer",
  at_once: 1,
  hours_a_day: null,
  runs_a_day: 0,
  stays: false,
  during: "",
};
export const EMPTY: TransferText = { ...textOfTransfer(NOTHING), runs_a_day: "" };

/** The transfer that was typed, or what is wrong with it. `base` keeps what the form does not show. */
export function transferFrom(
  text: TransferText,
  taken: ReadonlySet<string>,
  base: Transfer | null,
): Transfer | { wrong: string } {
  const read = valuesOf(ROWS, namesFor(text), text);
  if ("wrong" in read) return read;
  if (text.source === text.target) return { wrong: "Choose a different source and target." };
  const { kind, ...values } = read.values;
  const least_mb_s = kind === "files" ? (base?.least_mb_s ?? null) : null;
  const id = base?.id ?? freeId(String(values.text), taken, "transfer");
  return { ...NOTHING, ...values, least_mb_s, id } as Transfer;
}

/** A transfer in a line: `27.6 GB within 20 min, from storage to network`. */
export function transferWords(transfer: Transfer): string {
  const what =
    transfer.stream_mb_s === null
      ? capacity(transfer.amount_gb ?? 0) +
        (transfer.file_mb === null ? "" : ` in files of ${stated(transfer.file_mb, "MB")}`) +
        (transfer.within_min === null ? "" : ` within ${duration(transfer.within_min)}`)
      : `${figure(transfer.stream_mb_s * transfer.at_once, "MB/s")} without a gap` +
        (transfer.file_mb === null ? "" : `, in pieces of ${stated(transfer.file_mb, "MB")}`);
  return `${what}, from ${natural(ENDS[transfer.source])} to ${natural(ENDS[transfer.target])}`;
}

/** A label within a sentence; what is written in capitals stays. */
function natural(label: string): string {
  return /^[A-Z][a-z]+(?!-)/.test(label) ? label.charAt(0).toLowerCase() + label.slice(1) : label;
}
