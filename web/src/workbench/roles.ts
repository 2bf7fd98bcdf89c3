/** The kit in building order, and how each role is called. */
import type { Role } from "../api/types";

export const KIT_ROLES: { role: Role; label: string; needed: boolean; many: boolean }[] = [
  { role: "board", label: "Board", needed: true, many: false },
  { role: "supply", label: "Supply", needed: true, many: false },
  { role: "boot", label: "Boot medium", needed: true, many: false },
  { role: "data", label: "Data", needed: false, many: true },
  { role: "addon", label: "Add-ons", needed: false, many: true },
  { role: "cooling", label: "Cooling", needed: false, many: false },
  { role: "case", label: "Case", needed: false, many: false },
  { role: "lead", label: "Leads", needed: false, many: true },
  { role: "fastener", label: "Fasteners", needed: false, many: true },
  { role: "borrow", label: "To borrow", needed: false, many: true },
  { role: "beside", label: "Works with", needed: false, many: true },
];

export function roleLabel(role: string): string {
  return KIT_ROLES.find((entry) => entry.role === role)?.label ?? role;
}
