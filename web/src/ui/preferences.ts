/** Takes what is preferred from the workspace into this browser. */
import type { QueryClient } from "@tanstack/react-query";

import { preferencesQuery } from "../api/preferences";
import type { Preferences } from "../api/types";
import { setLetterKeys } from "../workbench/keySetting";
import { followOtherTabs, setShown } from "./displayUnits";
import { setTheme } from "./theme";

/** What of it shows: all that was told in other units is asked for anew. */
export function takeOver(preferred: Preferences, queries: QueryClient) {
  if (preferred.theme) setTheme(preferred.theme);
  setLetterKeys(preferred.letter_keys);
  if (setShown(preferred)) askAnew(queries);
}

function askAnew(queries: QueryClient) {
  const told = {
    predicate: ({ queryKey }: { queryKey: readonly unknown[] }) => queryKey[0] !== "preferences",
  };
  queries.removeQueries({ ...told, type: "inactive" });
  void queries.invalidateQueries(told);
}

/** At the start, and when another tab prefers something else. */
export async function begin(queries: QueryClient) {
  followOtherTabs(() => askAnew(queries));
  try {
    takeOver(await queries.query(preferencesQuery), queries);
  } catch {
    // As it was kept in this browser, then; the strip tells that the server is silent.
  }
}
