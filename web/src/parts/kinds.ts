/** Kinds of part as people call them, many and one, in the order in which a kit is put together. */
export const KINDS: [string, string, string][] = [
  ["board", "Boards", "board"],
  ["power_supply", "Power supplies", "power supply"],
  ["cable", "Cables", "cable"],
  ["hub", "Hubs", "hub"],
  ["card", "Memory cards", "memory card"],
  ["drive", "Drives", "drive"],
  ["storage_adapter", "Storage adapters", "storage adapter"],
  ["device", "Add-on boards and USB adapters", "add-on"],
  ["cooler", "Cooling", "cooler"],
  ["case", "Cases", "case"],
  ["fastener", "Fasteners", "set of fasteners"],
  ["tool", "Needed for set-up", "set-up tool"],
  ["machine", "Other equipment", "other equipment"],
];

/** What one of a kind is called, as it stands beside a name. */
export function kindWord(kind: string): string {
  return KINDS.find(([id]) => id === kind)?.[2] ?? kind;
}
