/** Kinds of part as people call them, in the order in which a kit is put together. */
export const KINDS: [string, string][] = [
  ["board", "Boards"],
  ["supply", "Supplies"],
  ["lead", "Leads"],
  ["hub", "Hubs"],
  ["card", "Memory cards"],
  ["drive", "Drives"],
  ["storage_adapter", "Storage boards"],
  ["device", "Things on USB and header"],
  ["cooler", "Cooling"],
  ["case", "Cases"],
  ["fastener", "Fasteners"],
  ["tool", "For setting up"],
  ["machine", "Other machines"],
];
