/** Talks to the server; every error becomes a `ProblemError` with a sentence for people. */
import createClient from "openapi-fetch";

import type { paths } from "./schema";
import { asked } from "./serverState";
import type { Problem } from "./types";

export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }

  /** The plan was changed elsewhere since this page read it. */
  get isStale(): boolean {
    return this.problem.status === 412;
  }
}

const NO_ANSWER: Problem = {
  type: "about:blank",
  title: "No answer",
  status: 0,
  detail: "No connection to the server. Nothing was changed.",
  problems: [],
  version: null,
  changes: [],
};

/** What every change carries: other sites cannot send it. */
export const OWN_HEADER = { "x-cobblewort": "page" };

export const client = createClient<paths>({
  baseUrl: window.location.origin,
  headers: OWN_HEADER,
  fetch: async (request) => {
    const answered = asked();
    try {
      const response = await fetch(request);
      answered(true);
      return response;
    } catch (error) {
      const givenUp = error instanceof DOMException && error.name === "AbortError";
      answered(givenUp ? null : false);
      if (givenUp) throw error;
      throw new ProblemError(NO_ANSWER);
    }
  },
});

/** The data of an answer, or its problem thrown. */
export function dataOf<T>(answer: { data?: T; error?: unknown; response: Response }): T {
  if (answer.data !== undefined || answer.response.ok) return answer.data as T;
  const problem = answer.error as Partial<Problem> | undefined;
  if (typeof problem?.detail === "string") throw new ProblemError(problem as Problem);
  throw new ProblemError({ ...NO_ANSWER, status: answer.response.status });
}

/** The header that names the version a write was made from. */
export function ifMatch(version: number): { "if-match": string } {
  return { "if-match": `"${version}"` };
}
