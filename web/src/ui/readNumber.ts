/** Reads a number as people type it, with a comma or a point. NaN where it is none. */
export function readNumber(text: string): number {
  const clean = text.trim().replace(",", ".").replace("−", "-");
  const value = clean === "" ? Number.NaN : Number(clean);
  return Number.isFinite(value) ? value : Number.NaN;
}
