import { useEffect, useRef, useSyncExternalStore } from "react";
import { Outlet, useMatches } from "react-router";

import { announced, followAnnounced } from "./announce";
import { focusSoon } from "./focusSoon";

/** What every page stands in: a way past the bar, what is read out, and the focus on a new page. */
export function Frame() {
  const page = useMatches().at(-1)?.id;
  const before = useRef(page);
  useEffect(() => {
    if (before.current !== page && document.activeElement === document.body) toContent();
    before.current = page;
  }, [page]);
  const said = useSyncExternalStore(followAnnounced, announced);
  return (
    <>
      <a
        className="skip-link"
        href="#content"
        onClick={(event) => {
          event.preventDefault();
          toContent();
        }}
      >
        Skip to content
      </a>
      <Outlet />
      <div className="visually-hidden" aria-live="polite">
        {said}
      </div>
    </>
  );
}

function toContent(): void {
  const main = document.querySelector("main");
  if (main && !main.hasAttribute("tabindex")) main.setAttribute("tabindex", "-1");
  focusSoon("main");
}
