import Button from "react-bootstrap/Button";

import { useTheme } from "./theme";

export function ThemeSwitch() {
  const [theme, flip] = useTheme();
  const next = theme === "light" ? "Dark theme" : "Light theme";
  return (
    <Button
      className="theme-switch"
      variant=""
      size="sm"
      onClick={flip}
      aria-label={next}
      title={next}
    >
      <svg viewBox="0 0 16 16" width={14} height={14} aria-hidden fill="currentColor">
        {theme === "light" ? (
          <path d="M10.8 1.6a6.6 6.6 0 1 0 3.6 9.3A5.6 5.6 0 0 1 10.8 1.6Z" />
        ) : (
          <path d="M8 4.6a3.4 3.4 0 1 0 0 6.8 3.4 3.4 0 0 0 0-6.8ZM7.3.8h1.4v2H7.3zM7.3 13.2h1.4v2H7.3zM.8 7.3h2v1.4h-2zM13.2 7.3h2v1.4h-2z" />
        )}
      </svg>
    </Button>
  );
}
