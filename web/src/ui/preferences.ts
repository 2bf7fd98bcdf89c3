/** Takes what is preferred from the workspace into this browser. */
import type { QueryClient } from "@tanstack/react-query";

import { preferencesQuery } from "../api/preferences";
import type { Preferences } from "../api/types";
import { setLetterKeys } from "./keySetting";
import { setShown } from "./displayUnits";
import { setTheme } from "./theme";

export function takeOver(preferred: Preferences) {
  if (preferred.theme) setTheme(preferred.theme);
  setLetterKeys(preferred.letter_keys);
  setShown(preferred);
}

/** At the start. */
export async function begin(queries: QueryClient) {
  try {
    takeOver(await queries.query(preferencesQuery));
  } catch {
    // As it was kept in this browser, then; the strip tells that the server is silent.
  }
}
