/** What a file is, told by its ending and its content. Pure. */

export type FileKind = "plans" | "parts" | "workspace" | "unknown";

/** `text` is the content of anything but an archive. */
export function kindOf(name: string, text: string): FileKind {
  const ending = name.toLowerCase().split(".").pop();
  if (ending === "zip" || ending === "sqlite3") return "workspace";
  if (ending === "csv") return "parts";
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return ending === "json" ? "plans" : "unknown"; // the server tells where it is wrong
  }
  if (Array.isArray(value)) return "parts";
  if (typeof value !== "object" || value === null) return "unknown";
  if ("plans" in value || "lines" in value || "name" in value) return "plans";
  return "parts" in value ? "parts" : "unknown";
}
