/** The kit in building order, and how each role is called. */
import { ROLES } from "../api/labels";
import type { Role } from "../api/types";

const NEEDED = new Set<Role>(["board", "power_supply", "boot_drive"]);
const SINGLE = new Set<Role>(["board", "power_supply", "boot_drive", "cooling", "case"]);

export const KIT_ROLES = (Object.keys(ROLES) as Role[]).map((role) => ({
  role,
  label: ROLES[role],
  needed: NEEDED.has(role),
  many: !SINGLE.has(role),
}));

export function roleLabel(role: Role): string {
  return ROLES[role];
}
