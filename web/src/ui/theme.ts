/** Light by day, the night bench by choice or by the system's wish. Kept with the workspace, and in
 * this browser so that nothing flashes at the start. */
import { useEffect, useSyncExternalStore } from "react";

import { keepPreference } from "../api/preferences";

export type Theme = "light" | "dark";
const KEY = "cobblewort-theme";
const listeners = new Set<() => void>();

function wished(): Theme {
  const kept = localStorage.getItem(KEY);
  if (kept === "light" || kept === "dark") return kept;
  return window.matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
}

function subscribe(listener: () => void) {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function setTheme(theme: Theme) {
  localStorage.setItem(KEY, theme);
  listeners.forEach((listener) => listener());
}

export function useTheme(): [Theme, () => void] {
  const theme = useSyncExternalStore(subscribe, wished);
  useEffect(() => {
    document.documentElement.dataset.bsTheme = theme;
  }, [theme]);
  const flip = () => {
    const next = theme === "light" ? "dark" : "light";
    setTheme(next);
    void keepPreference({ theme: next });
  };
  return [theme, flip];
}
