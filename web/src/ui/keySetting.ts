/** Whether single letters work as keys; kept with the workspace, and in this browser. */
import { useSyncExternalStore } from "react";

import { keepPreference } from "../api/preferences";

const NAME = "cobblewort-letter-keys";
const listeners = new Set<() => void>();

const read = () => localStorage.getItem(NAME) !== "off";

function subscribe(listener: () => void) {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function setLetterKeys(on: boolean) {
  localStorage.setItem(NAME, on ? "on" : "off");
  listeners.forEach((listener) => listener());
}

export function useLetterKeys(): [boolean, (on: boolean) => void] {
  const on = useSyncExternalStore(subscribe, read);
  const set = (value: boolean) => {
    setLetterKeys(value);
    void keepPreference({ letter_keys: value });
  };
  return [on, set];
}
