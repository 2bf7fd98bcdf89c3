/** Needs in words, and new ones from what is chosen and typed. Pure. */
import type { Need, NeedKind, NeedReport, Severity } from "../api/types";
import { stated } from "../ui/numbers";
import { readNumber } from "../ui/readNumber";

/** What is looked for, with its figure: `wired network, at least 80 MB/s`. */
export function lookedFor(need: Need, kinds: NeedKind[]): string {
  const kind = kinds.find((entry) => entry.id === (need.function ?? need.condition ?? need.limit));
  if (!kind) return "";
  if (need.at_most != null) return `${kind.label} ${stated(need.at_most, kind.unit)}`;
  if (need.at_least != null && need.rate_mb_h != null)
    return `${kind.label}, at least ${stated(need.at_least, kind.unit)} at ${stated(need.rate_mb_h, kind.rate_unit)}`;
  if (need.at_least != null) return `${kind.label}, at least ${stated(need.at_least, kind.unit)}`;
  return need.count > 1 ? `${kind.label}, ${need.count} times` : kind.label;
}

export interface NeedText {
  /** `function:clock`, as the choice is listed. */
  choice: string;
  text: string;
  figure: string;
  rate: string;
}

/** A new need, or the sentence that says what is missing. */
export function needFrom(
  typed: NeedText,
  kinds: NeedKind[],
  taken: string[],
): { need: Need } | { wrong: string } {
  const [kindName, ...rest] = typed.choice.split(":");
  const kind = kinds.find((entry) => entry.kind === kindName && entry.id === rest.join(":"));
  if (!kind) return { wrong: "Choose what is to be asked for." };
  const figure = typed.figure.trim() === "" ? null : readNumber(typed.figure);
  if (Number.isNaN(figure) || (figure !== null && figure <= 0))
    return { wrong: "The figure must be a number above zero, such as 80." };
  if (figure === null && (kind.wants === "at_most" || kind.id === "off_mains"))
    return { wrong: `Say how much: ${kind.label} … ${kind.unit}.` };
  const rate = typed.rate.trim() === "" ? null : readNumber(typed.rate);
  if (kind.rate_unit && (figure === null || rate === null || !(rate > 0)))
    return {
      wrong: `Say how many ${kind.unit}, and how many ${kind.rate_unit}, such as 30 and 330.`,
    };
  if (kind.wants === "count" && figure !== null && !Number.isInteger(figure))
    return { wrong: "How often must be a whole number." };
  const need: Need = {
    id: freeId(kind.id, taken),
    text: typed.text.trim() || kind.label,
    function: kind.kind === "function" ? (kind.id as Need["function"]) : null,
    condition: kind.kind === "condition" ? (kind.id as Need["condition"]) : null,
    limit: kind.kind === "limit" ? (kind.id as Need["limit"]) : null,
    count: kind.wants === "count" ? (figure ?? 1) : 1,
    at_least: kind.wants === "at_least" ? figure : null,
    at_most: kind.wants === "at_most" ? figure : null,
    rate_mb_h: kind.rate_unit ? rate : null,
  };
  return { need };
}

function freeId(base: string, taken: string[]): string {
  let number = 1;
  while (taken.includes(number === 1 ? base : `${base}-${number}`)) number += 1;
  return number === 1 ? base : `${base}-${number}`;
}

/** The mark of a need: met is sound, half met a note, unmet stops. */
export function needMark(status: NeedReport["status"]): Severity {
  return status === "met" ? "sound" : status === "unmet" ? "stops" : "note";
}

export function needWord(status: NeedReport["status"]): string {
  return { met: "met", conditional: "met if", unmet: "not met", unknown: "not known" }[status];
}

/** `3 of 4 needs met`, what is met only on a condition counted as met. */
export function needTally(needs: NeedReport[]): string {
  const met = needs.filter((need) => need.status === "met" || need.status === "conditional");
  return `${met.length} of ${needs.length} need${needs.length === 1 ? "" : "s"} met`;
}
