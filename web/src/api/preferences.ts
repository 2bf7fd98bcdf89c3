/** What its owner prefers, as it is kept with the workspace. */
import { queryOptions } from "@tanstack/react-query";

import { client, dataOf } from "./client";
import type { Preferences } from "./types";

export const preferencesQuery = queryOptions({
  queryKey: ["preferences"],
  queryFn: async () => dataOf(await client.GET("/api/preferences")),
});

/** Prefer something else from now on. Throws a `ProblemError` that says why not. */
export async function prefer(change: Partial<Preferences>): Promise<Preferences> {
  return dataOf(await client.PATCH("/api/preferences", { body: change }));
}

/** The same where this browser keeps it too, and nothing is lost if the server cannot. */
export async function keepPreference(change: Partial<Preferences>): Promise<void> {
  await prefer(change).catch(() => undefined);
}
