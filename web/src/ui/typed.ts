/** What somebody typed over what is stored: it is theirs, whatever happens elsewhere meanwhile. */
import { useState } from "react";

export type Fields = Record<string, unknown>;

export interface Merged<T> {
  /** Typed fields as typed, the others as they are stored now. */
  text: T;
  /** Fields that were typed here and changed elsewhere. */
  clashes: (keyof T)[];
  /** Fields that were changed elsewhere and not typed here. */
  taken: (keyof T)[];
}

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);

/** Brings what was typed over `base` together with what is stored now. */
export function merge<T extends object>(base: T, mine: T, theirs: T): Merged<T> {
  const text = { ...mine };
  const clashes: (keyof T)[] = [];
  const taken: (keyof T)[] = [];
  for (const key of Object.keys(theirs) as (keyof T)[]) {
    if (same(base[key], theirs[key])) continue;
    if (same(mine[key], base[key])) {
      text[key] = theirs[key];
      taken.push(key);
    } else if (!same(mine[key], theirs[key])) clashes.push(key);
  }
  return { text, clashes, taken };
}

export interface Typed<T> {
  text: T;
  setText: (text: T) => void;
  /** What was stored when the text was last brought up to date, and its version. */
  base: T;
  version: number;
  dirty: boolean;
  clashes: (keyof T)[];
  taken: (keyof T)[];
  /** Gives one's own text for a field up for what is stored. */
  take: (key: keyof T) => void;
  /** What stood here is stored: go on from there; what was typed since stays. */
  settle: (stored: T, version: number) => void;
  /** The fields that differ from what is stored. */
  changed: (keyof T)[];
}

/** `textOf` what is stored at a version, typed over; a newer version is merged in, never put on top. */
export function useTyped<T extends object>(stored: T, version: number): Typed<T> {
  const [state, setState] = useState({
    version,
    base: stored,
    text: stored,
    clashes: [] as (keyof T)[],
    taken: [] as (keyof T)[],
  });
  let now = state;
  if (version !== state.version) {
    const merged = merge(state.base, state.text, stored);
    const keep = state.clashes.filter((key) => !same(merged.text[key], stored[key]));
    now = {
      version,
      base: stored,
      text: merged.text,
      clashes: [...new Set([...keep, ...merged.clashes])],
      taken: [...new Set([...state.taken, ...merged.taken])],
    };
    setState(now);
  }
  const changed = (Object.keys(now.text) as (keyof T)[]).filter(
    (key) => !same(now.text[key], now.base[key]),
  );
  return {
    text: now.text,
    setText: (text) => setState({ ...now, text }),
    base: now.base,
    version: now.version,
    dirty: changed.length > 0,
    clashes: now.clashes.filter((key) => changed.includes(key)),
    taken: now.taken,
    take: (key) => setState({ ...now, text: { ...now.text, [key]: now.base[key] } }),
    settle: (saved, at) =>
      setState((later) => {
        const { text } = merge(now.text, later.text, saved);
        return { version: at, base: saved, text, clashes: [], taken: [] };
      }),
    changed,
  };
}

/** Text over what is stored where that has no version: fields that nobody typed into follow it, and
 * what was typed stays. */
export function useFollowing<T extends object>(stored: T): [T, (text: T) => void] {
  const [state, setState] = useState({ base: stored, text: stored });
  let { text } = state;
  if (!same(state.base, stored)) {
    text = merge(state.base, state.text, stored).text;
    setState({ base: stored, text });
  }
  return [text, (next) => setState((now) => ({ ...now, text: next }))];
}
