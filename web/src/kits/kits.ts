/** Suggested kits as the page shows them: figures, limits, order, what differs. */
import { ROLES } from "../api/labels";
import type {
  ChosenPart,
  CriterionId,
  CriterionView,
  PartView,
  Role,
  SuggestedKit,
} from "../api/types";
import { shownUnit } from "../ui/displayUnits";
import { difference, figure, money, percent } from "../ui/numbers";
import { readNumber } from "../ui/readNumber";

/** The furthest that a kit may go in each criterion; what is not there has no limit. */
export type Limits = Partial<Record<CriterionId, number>>;

export function valueOf(kit: Pick<SuggestedKit, "figures">, criterion: CriterionId): number {
  return kit.figures.find((entry) => entry.criterion === criterion)?.value ?? 0;
}

type Told = Pick<CriterionView, "id" | "unit">;

export function criterionText(criterion: Told, value: number, currency: string): string {
  if (criterion.id === "price") return money(value, currency);
  if (criterion.id === "margin") return percent(value);
  if (criterion.id === "headroom") return difference(value, criterion.unit);
  if (criterion.unit === "") return String(value);
  return figure(value, criterion.unit);
}

/** A limit that was typed, with its sign or unit or without, as the server has it; NaN of others. */
export function limitFrom(criterion: Told, typed: string): number {
  return readNumber(typed.replace(/[^\d.,\-−]/g, "")) / scaleOf(criterion);
}

function scaleOf({ id, unit }: Told): number {
  if (id === "margin") return 100;
  return id === "headroom" && shownUnit(unit) === "°F" ? 1.8 : 1;
}

/** Whether a kit keeps to every limit. */
export function isWithin(kit: SuggestedKit, criteria: CriterionView[], limits: Limits): boolean {
  return criteria.every(({ id, more }) => {
    const limit = limits[id];
    const value = valueOf(kit, id);
    return limit === undefined || (more ? value >= limit - 1e-9 : value <= limit + 1e-9);
  });
}

/** From the least to the most of a criterion among the kits. */
export function extentOf(kits: SuggestedKit[], criterion: CriterionId): [number, number] {
  const values = kits.map((kit) => valueOf(kit, criterion));
  return [Math.min(...values), Math.max(...values)];
}

/** How far a drawing reaches, so that what lies not too far beyond the kits is in it too. */
export function withOthers([least, most]: [number, number], others: number[]): [number, number] {
  const room = (most - least || Math.abs(most) * 0.1) * SHOWN_BEYOND;
  const near = others.filter((value) => value >= least - room && value <= most + room);
  return [Math.min(least, ...near), Math.max(most, ...near)];
}

const SHOWN_BEYOND = 0.5;

export interface Sorting {
  by: CriterionId;
  down: boolean;
}

/** The kits with their places in the answer, in the order that is wanted. */
export function inOrder(kits: SuggestedKit[], { by, down }: Sorting): [SuggestedKit, number][] {
  const placed = kits.map((kit, place): [SuggestedKit, number] => [kit, place]);
  const sign = down ? -1 : 1;
  return placed.sort(
    ([one, a], [other, b]) => sign * (valueOf(one, by) - valueOf(other, by)) || a - b,
  );
}

/** A kit's parts of one role: `2 Drum 1T`; none where it has none. */
export function partsOf(kit: SuggestedKit, role: Role): string {
  return kit.parts
    .filter((part) => part.role === role)
    .map((part) => (part.quantity > 1 ? `${part.quantity} ${part.name}` : part.name))
    .join(", ");
}

/** The parts of all kits, each once, in the order of the roles. */
export function partsIn(kits: SuggestedKit[]): ChosenPart[] {
  const found = new Map<string, ChosenPart>();
  for (const kit of kits)
    for (const { part, name, role } of kit.parts) found.set(part, { part, name, role });
  return byRole([...found.values()]);
}

/** The makers of what is in the kits, by name. */
export function makersIn(kits: SuggestedKit[]): string[] {
  const makers = kits.flatMap((kit) => kit.parts.map((part) => part.maker));
  return [...new Set(makers)].sort((one, other) => one.localeCompare(other));
}

const ROLE_OF: Partial<Record<PartView["kind"], Role>> = {
  board: "board",
  power_supply: "power_supply",
  card: "boot_drive",
  drive: "storage",
  cooler: "cooling",
  case: "case",
};

/** The parts of which a kit has one for their role, so that it can be asked for. */
export function requirable(parts: PartView[]): ChosenPart[] {
  return byRole(
    parts.flatMap(({ id, model, kind, origin }) => {
      const role = ROLE_OF[kind];
      return role && origin !== "typical" ? [{ part: id, name: model, role }] : [];
    }),
  );
}

/** The parts of which one may ask why they are in no kit, by kind. */
export function askable(parts: PartView[]): [PartView["kind"], PartView[]][] {
  const found = new Map<PartView["kind"], PartView[]>();
  for (const part of parts) {
    if (part.origin === "typical" || NEVER_ASKED.has(part.kind)) continue;
    found.set(part.kind, [...(found.get(part.kind) ?? []), part]);
  }
  return [...found];
}

const NEVER_ASKED: ReadonlySet<PartView["kind"]> = new Set(["tool", "machine", "fastener"]);

function byRole(parts: ChosenPart[]): ChosenPart[] {
  const order = Object.keys(ROLES);
  const place = ({ role }: ChosenPart) => order.indexOf(role ?? "");
  return parts.sort(
    (one, other) => place(one) - place(other) || one.name.localeCompare(other.name),
  );
}

export interface DifferenceRow {
  role: Role;
  cells: string[];
}

/** Roles in which kits differ. */
export function differences(kits: SuggestedKit[]): DifferenceRow[] {
  const roles = [...new Set(kits.flatMap((kit) => kit.parts.map((part) => part.role)))];
  return roles
    .map((role) => ({ role, cells: kits.map((kit) => partsOf(kit, role)) }))
    .filter((row) => new Set(row.cells).size > 1);
}
