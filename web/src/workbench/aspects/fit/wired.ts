/** From the fields of the form to a button or LED of the plan, or to what is wrong. Pure. */
import type { Wired } from "../../../api/types";
import { positive } from "../../../ui/readNumber";

export interface WiredText {
  kind: "led" | "button";
  label: string;
  pin: string;
  forwardV: string;
  currentMa: string;
  madeForV: string;
}

export const EMPTY: WiredText = {
  kind: "led",
  label: "",
  pin: "",
  forwardV: "2.0",
  currentMa: "5",
  madeForV: "",
};

export function wiredFrom(text: WiredText, taken: Set<string>): Wired | { wrong: string } {
  const label = text.label.trim();
  if (!label) return { wrong: "Enter a name, for example “red lamp”." };
  if (!text.pin) return { wrong: "Choose a pin." };
  const base = { id: freeId(text.kind, taken), kind: text.kind, label, pin: Number(text.pin) };
  if (text.kind === "button") return base;
  const forward = positive(text.forwardV);
  const current = positive(text.currentMa);
  if (forward === null) return { wrong: "Enter a forward voltage above 0, in V." };
  if (current === null) return { wrong: "Enter a current above 0, in mA." };
  const made = text.madeForV.trim() ? positive(text.madeForV) : undefined;
  if (made === null) return { wrong: "Enter a supply voltage above 0, in V, or leave it empty." };
  return { ...base, forward_v: forward, current_ma: current, made_for_v: made ?? null };
}

function freeId(kind: string, taken: Set<string>): string {
  let number = 1;
  while (taken.has(`${kind}-${number}`)) number += 1;
  return `${kind}-${number}`;
}
