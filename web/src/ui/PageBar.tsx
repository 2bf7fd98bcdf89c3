import { Link } from "react-router";

import { ThemeSwitch } from "./ThemeSwitch";

const PAGES = [
  { id: "plans", to: "/", label: "Plans" },
  { id: "parts", to: "/parts", label: "Parts" },
  { id: "rules", to: "/rules", label: "Rules" },
  { id: "settings", to: "/settings", label: "Settings" },
] as const;

/** The bar on top of the pages beside the workbench. */
export function PageBar({ current }: { current: (typeof PAGES)[number]["id"] }) {
  return (
    <header className="chrome">
      <Link to="/" className="brand">
        Cobblewort
      </Link>
      <nav className="pages" aria-label="Pages">
        {PAGES.map((page) => (
          <Link key={page.id} to={page.to} aria-current={page.id === current ? "page" : undefined}>
            {page.label}
          </Link>
        ))}
      </nav>
      <ThemeSwitch />
    </header>
  );
}
