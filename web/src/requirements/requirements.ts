/** Needs in words, and new ones from what is chosen and typed. Pure. */
import type { Requirement, RequirementKind, RequirementReport, Severity } from "../api/types";
import { stated } from "../ui/numbers";
import { readNumber } from "../ui/readNumber";
import { REQUIREMENT_STATUSES } from "../api/labels";

/** What is looked for, with its figure: `wired network, at least 80 MB/s`. */
export function lookedFor(requirement: Requirement, kinds: RequirementKind[]): string {
  const kind = kindOf(requirement, kinds);
  if (!kind) return "";
  if (requirement.at_most != null) return `${kind.label} ${stated(requirement.at_most, kind.unit)}`;
  if (requirement.at_least != null && requirement.rate_mb_h != null)
    return `${kind.label}, at least ${amount(requirement.at_least, kind.unit)} at ${stated(requirement.rate_mb_h, kind.rate_unit)}`;
  if (requirement.at_least != null)
    return `${kind.label}, at least ${amount(requirement.at_least, kind.unit)}`;
  return requirement.count > 1 ? `${requirement.count} × ${kind.label}` : kind.label;
}

/** What a requirement asks for in figures that are typed; null where there is no such figure. */
export function amountOf(requirement: Requirement): number | null {
  if (requirement.condition === "enough_processor") return null;
  return requirement.at_most ?? requirement.at_least;
}

export function kindOf(
  requirement: Requirement,
  kinds: RequirementKind[],
): RequirementKind | undefined {
  return kinds.find(
    (entry) => entry.id === (requirement.function ?? requirement.condition ?? requirement.limit),
  );
}

/** `1 channel`, `16 channels`. */
function amount(value: number, unit: string): string {
  return stated(value, value === 1 && /[a-z]{3}s$/.test(unit) ? unit.slice(0, -1) : unit);
}

export interface RequirementText {
  /** `function:clock`, as the choice is listed. */
  choice: string;
  text: string;
  figure: string;
  rate: string;
}

/** A new need, or the sentence that says what is missing. */
export function requirementFrom(
  typed: RequirementText,
  kinds: RequirementKind[],
  taken: string[],
): { requirement: Requirement } | { wrong: string } {
  const [kindName, ...rest] = typed.choice.split(":");
  const kind = kinds.find((entry) => entry.kind === kindName && entry.id === rest.join(":"));
  if (!kind) return { wrong: "Choose a requirement." };
  const figure = typed.figure.trim() === "" ? null : readNumber(typed.figure);
  if (Number.isNaN(figure) || (figure !== null && figure <= 0))
    return { wrong: "Enter a number above 0, for example 80." };
  if (figure === null && (kind.wants === "at_most" || (kind.kind === "condition" && kind.wants)))
    return { wrong: `Enter a value in ${kind.unit}.` };
  const rate = typed.rate.trim() === "" ? null : readNumber(typed.rate);
  if (kind.rate_unit && (figure === null || rate === null || !(rate > 0)))
    return {
      wrong: `Enter a number of ${kind.unit} and of ${kind.rate_unit}, for example 30 and 330.`,
    };
  if (kind.wants === "count" && figure !== null && !Number.isInteger(figure))
    return { wrong: "Enter the count as a whole number." };
  const requirement: Requirement = {
    id: freeId(kind.id, taken),
    text: typed.text.trim() || kind.label,
    function: kind.kind === "function" ? (kind.id as Requirement["function"]) : null,
    condition: kind.kind === "condition" ? (kind.id as Requirement["condition"]) : null,
    limit: kind.kind === "limit" ? (kind.id as Requirement["limit"]) : null,
    count: kind.wants === "count" ? (figure ?? 1) : 1,
    at_least: kind.wants === "at_least" ? figure : null,
    at_most: kind.wants === "at_most" ? figure : null,
    rate_mb_h: kind.rate_unit ? rate : null,
  };
  return { requirement };
}

function freeId(base: string, taken: string[]): string {
  let number = 1;
  while (taken.includes(number === 1 ? base : `${base}-${number}`)) number += 1;
  return number === 1 ? base : `${base}-${number}`;
}

/** The mark of a need: met is sound, half met a note, unmet stops. */
export function requirementMark(status: RequirementReport["status"]): Severity {
  return status === "met" ? "ok" : status === "not_met" ? "problem" : "note";
}

export function requirementWord(status: RequirementReport["status"]): string {
  return REQUIREMENT_STATUSES[status];
}

/** `3 of 4 needs met`, what is met only on a condition counted as met. */
export function requirementTally(requirements: RequirementReport[]): string {
  const met = requirements.filter(
    (requirement) => requirement.status === "met" || requirement.status === "met_if",
  );
  return `${met.length} of ${requirements.length} requirement${requirements.length === 1 ? "" : "s"} met`;
}
