/** What a person who listens instead of looking is told: one sentence at a time. */
let said = "";
const listeners = new Set<() => void>();

export function announce(text: string): void {
  // The same sentence twice is two things that happened: it has to differ to be read again.
  said = text === said.trimEnd() && !said.endsWith(" ") ? `${text} ` : text;
  for (const listener of listeners) listener();
}

export function announced(): string {
  return said;
}

export function followAnnounced(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
