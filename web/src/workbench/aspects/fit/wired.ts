/** From the fields of the form to a button or LED of the plan, or to what is wrong. Pure. */
import { FIELDS } from "../../../api/labels";
import type { Wired } from "../../../api/types";
import { freeId, valuesOf, type FieldText } from "../../../ui/fieldText";

export const ROWS = { ...FIELDS.wired, pin: { ...FIELDS.wired.pin, control: "choice" as const } };
const OF_ALL = ["kind", "label", "pin"] as const;
const OF_LEDS = ["forward_v", "current_ma", "made_for_v"] as const;
export type WiredText = FieldText<(typeof OF_ALL)[number] | (typeof OF_LEDS)[number]>;

export const EMPTY: WiredText = {
  kind: "led",
  label: "",
  pin: "",
  forward_v: "2.0",
  current_ma: "5",
  made_for_v: "",
};

/** The fields that are asked for: a button has no voltages. */
export function namesFor(text: WiredText) {
  return text.kind === "led" ? [...OF_ALL, ...OF_LEDS] : OF_ALL;
}

export function wiredFrom(text: WiredText, taken: ReadonlySet<string>): Wired | { wrong: string } {
  const read = valuesOf(ROWS, namesFor(text), text);
  if ("wrong" in read) return read;
  const kind = String(text.kind);
  return { id: freeId(kind, taken, kind, 1), ...read.values } as Wired;
}
