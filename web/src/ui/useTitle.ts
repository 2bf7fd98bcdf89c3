import { useEffect } from "react";

/** What the tab of the browser is called: the plan or part first, then the view. */
export function useTitle(...names: (string | undefined)[]): void {
  const title = [...names.filter(Boolean), "Cobblewort"].join(" · ");
  useEffect(() => {
    document.title = title;
  }, [title]);
}
