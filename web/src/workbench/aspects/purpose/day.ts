/** The day as a strip of hours, and what is typed into it. Pure. */
import type { Activity, Phase } from "../../../api/types";
import { readNumber } from "../../../ui/readNumber";

export interface PhaseText {
  name: string;
  hours: string;
  activity: Activity;
  /** What single lines of the kit do otherwise; kept as it is. */
  lines: Phase["lines"];
}

export interface Segment {
  start: number;
  share: number;
  name: string;
  hours: number;
  activity: Activity | "rest";
}

export function textOf(schedule: Phase[]): PhaseText[] {
  return schedule.map((phase) => ({
    name: phase.name,
    hours: String(phase.hours),
    activity: phase.activity,
    lines: phase.lines,
  }));
}

/** Shares of 24 hours, what is left of them being off. */
export function segments(rows: PhaseText[]): Segment[] {
  const found: Segment[] = [];
  let start = 0;
  for (const row of rows) {
    const hours = readNumber(row.hours);
    if (!(hours > 0) || start >= 24) continue;
    const kept = Math.min(hours, 24 - start);
    found.push({
      start: start / 24,
      share: kept / 24,
      name: row.name,
      hours: kept,
      activity: row.activity,
    });
    start += kept;
  }
  if (start < 24)
    found.push({
      start: start / 24,
      share: 1 - start / 24,
      name: "not in use",
      hours: Math.round((24 - start) * 100) / 100,
      activity: "rest",
    });
  return found;
}

/** The duty to store, or the sentence that says what is wrong. */
export function scheduleFrom(rows: PhaseText[]): { schedule: Phase[] } | { wrong: string } {
  if (rows.length === 0) return { wrong: "A schedule needs at least one phase." };
  const hours = rows.map((row) => readNumber(row.hours));
  if (hours.some((value) => !(value > 0 && value <= 24)))
    return { wrong: "Enter hours above 0 and up to 24, for example 2.5." };
  if (rows.some((row) => !row.name.trim())) return { wrong: "Each phase needs a name." };
  const sum = hours.reduce((total, value) => total + value, 0);
  if (sum > 24.0001) return { wrong: `The phases must add up to at most 24 h (got ${sum} h).` };
  return {
    schedule: rows.map((row, index) => ({
      name: row.name.trim(),
      hours: hours[index] ?? 0,
      activity: row.activity,
      lines: row.lines,
    })),
  };
}
