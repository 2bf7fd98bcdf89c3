/** Kinds of part as people call them, many and one, in the order in which a kit is put together. */
export const KINDS: [string, string, string][] = [
  ["board", "Boards", "board"],
  ["supply", "Supplies", "supply"],
  ["lead", "Leads", "lead"],
  ["hub", "Hubs", "hub"],
  ["card", "Memory cards", "memory card"],
  ["drive", "Drives", "drive"],
  ["storage_adapter", "Storage boards", "storage board"],
  ["device", "Things on USB and header", "device"],
  ["cooler", "Cooling", "cooler"],
  ["case", "Cases", "case"],
  ["fastener", "Fasteners", "set of fasteners"],
  ["tool", "For setting up", "tool"],
  ["machine", "Other machines", "machine beside the kit"],
];

/** What one of a kind is called, as it stands beside a name. */
export function kindWord(kind: string): string {
  return KINDS.find(([id]) => id === kind)?.[2] ?? kind;
}
