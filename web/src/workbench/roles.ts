/** The kit in building order, and how each role is called. */
import type { Role } from "../api/types";

export const KIT_ROLES: { role: Role; label: string; needed: boolean; many: boolean }[] = [
  { role: "board", label: "Board", needed: true, many: false },
  { role: "power_supply", label: "Power supply", needed: true, many: false },
  { role: "boot_drive", label: "Boot drive", needed: true, many: false },
  { role: "storage", label: "Storage", needed: false, many: true },
  { role: "add_on", label: "Add-ons", needed: false, many: true },
  { role: "cooling", label: "Cooling", needed: false, many: false },
  { role: "case", label: "Case", needed: false, many: false },
  { role: "cable", label: "Cables", needed: false, many: true },
  { role: "fastener", label: "Fasteners", needed: false, many: true },
  { role: "set_up", label: "Needed for set-up", needed: false, many: true },
  { role: "other_equipment", label: "Other equipment", needed: false, many: true },
];

export function roleLabel(role: string): string {
  return KIT_ROLES.find((entry) => entry.role === role)?.label ?? role;
}
