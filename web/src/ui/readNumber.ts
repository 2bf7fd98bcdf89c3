/** Reads a number as people type it, with a comma or a point. NaN where it is none. */
export function readNumber(text: string): number {
  const clean = text.trim().replace(",", ".").replace("−", "-");
  const value = clean === "" ? Number.NaN : Number(clean);
  return Number.isFinite(value) ? value : Number.NaN;
}

/** The same where only something above nothing makes sense; null where it is not. */
export function positive(text: string): number | null {
  const value = readNumber(text);
  return value > 0 ? value : null;
}
