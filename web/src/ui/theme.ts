/** Light by day, the night bench by choice or by the system's wish. */
import { useEffect, useState } from "react";

type Theme = "light" | "dark";
const KEY = "cobblewort-theme";

function wished(): Theme {
  const kept = localStorage.getItem(KEY);
  if (kept === "light" || kept === "dark") return kept;
  return window.matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
}

export function useTheme(): [Theme, () => void] {
  const [theme, setTheme] = useState<Theme>(wished);
  useEffect(() => {
    document.documentElement.dataset.bsTheme = theme;
  }, [theme]);
  const flip = () => {
    const next = theme === "light" ? "dark" : "light";
    localStorage.setItem(KEY, next);
    setTheme(next);
  };
  return [theme, flip];
}
