/** Whether single letters work as keys; kept in this browser. */
import { useSyncExternalStore } from "react";

const NAME = "cobblewort-letter-keys";
const listeners = new Set<() => void>();

const read = () => localStorage.getItem(NAME) !== "off";

function subscribe(listener: () => void) {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function useLetterKeys(): [boolean, (on: boolean) => void] {
  const on = useSyncExternalStore(subscribe, read);
  const set = (value: boolean) => {
    localStorage.setItem(NAME, value ? "on" : "off");
    listeners.forEach((listener) => listener());
  };
  return [on, set];
}
