/** Query keys and fetchers, in one place. */
import { keepPreviousData, queryOptions } from "@tanstack/react-query";

import { client, dataOf } from "./client";
import type { Activity, AskedRequest, FirstKitRequest, KitSearch, Purpose, Role } from "./types";

export const plansQuery = queryOptions({
  queryKey: ["plans"],
  queryFn: async () => dataOf(await client.GET("/api/plans")),
});

export const planQuery = (id: string) =>
  queryOptions({
    queryKey: ["plan", id],
    queryFn: async () =>
      dataOf(await client.GET("/api/plans/{plan_id}", { params: { path: { plan_id: id } } })),
  });

/** What is assumed instead of what the plan says; null leaves it as planned. */
export interface WhatIf {
  ambientC: number | null;
  activity: Activity | null;
}

export const AS_PLANNED: WhatIf = { ambientC: null, activity: null };

export const whatIfParams = (whatIf: WhatIf) => ({
  ambient_c: whatIf.ambientC,
  activity: whatIf.activity,
});

/** A report belongs to a version of the plan and to what is assumed. */
export const reportQuery = (id: string, version: number, whatIf: WhatIf) =>
  queryOptions({
    queryKey: ["report", id, version, whatIf],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/report", {
          params: { path: { plan_id: id }, query: whatIfParams(whatIf) },
          signal,
        }),
      ),
    staleTime: Infinity,
  });

export const candidatesQuery = (
  id: string,
  version: number,
  whatIf: WhatIf,
  role: Role,
  line: string | null,
) =>
  queryOptions({
    queryKey: ["candidates", id, version, whatIf, role, line],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/candidates", {
          params: { path: { plan_id: id }, query: { role, line, ...whatIfParams(whatIf) } },
          signal,
        }),
      ),
    staleTime: Infinity,
  });

export const fixesQuery = (id: string, version: number, whatIf: WhatIf, findingId: string) =>
  queryOptions({
    queryKey: ["fixes", id, version, whatIf, findingId],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/fixes", {
          params: { path: { plan_id: id }, query: { finding: findingId, ...whatIfParams(whatIf) } },
          signal,
        }),
      ),
    staleTime: Infinity,
  });

export const socketsQuery = (id: string, version: number, whatIf: WhatIf, plug: string) =>
  queryOptions({
    queryKey: ["sockets", id, version, whatIf, plug],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/moves", {
          params: { path: { plan_id: id }, query: { plug, ...whatIfParams(whatIf) } },
          signal,
        }),
      ),
    staleTime: Infinity,
  });

export const workingQuery = (id: string, version: number, whatIf: WhatIf, figure: string) =>
  queryOptions({
    queryKey: ["working", id, version, whatIf, figure],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/working", {
          params: { path: { plan_id: id }, query: { figure, ...whatIfParams(whatIf) } },
          signal,
        }),
      ),
    staleTime: Infinity,
  });

export type KitForm = "txt" | "csv" | "md";

export const kitTextQuery = (id: string, version: number, form: KitForm) =>
  queryOptions({
    queryKey: ["kit", id, version, form],
    queryFn: async () => {
      const options = { params: { path: { plan_id: id } }, parseAs: "text" } as const;
      const path = `/api/plans/{plan_id}/kit.${form}` as const;
      return dataOf(await client.GET(path, options));
    },
  });

export const stepsQuery = (id: string, version: number) =>
  queryOptions({
    queryKey: ["steps", id, version],
    queryFn: async () =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/revisions", { params: { path: { plan_id: id } } }),
      ),
  });

export const stepReportQuery = (id: string, number: number) =>
  queryOptions({
    queryKey: ["step", id, number],
    queryFn: async () =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/revisions/{number}/report", {
          params: { path: { plan_id: id, number } },
        }),
      ),
    staleTime: Infinity,
  });

export const binQuery = queryOptions({
  queryKey: ["away"],
  queryFn: async () => dataOf(await client.GET("/api/bin")),
});

export const workspaceQuery = queryOptions({
  queryKey: ["workspace"],
  queryFn: async () => dataOf(await client.GET("/api/workspace")),
});

export const copiesQuery = queryOptions({
  queryKey: ["copies"],
  queryFn: async () => dataOf(await client.GET("/api/workspace/copies")),
});

export const brokenPartsQuery = queryOptions({
  queryKey: ["broken parts"],
  queryFn: async () => dataOf(await client.GET("/api/parts/broken")),
});

export const rulesQuery = queryOptions({
  queryKey: ["rules"],
  queryFn: async () => dataOf(await client.GET("/api/rules")),
});

export const partsQuery = queryOptions({
  queryKey: ["parts"],
  queryFn: async () => dataOf(await client.GET("/api/parts")),
  staleTime: Infinity,
});

/** The ids that are found by what is typed, in their order. */
export const searchQuery = (text: string) =>
  queryOptions({
    queryKey: ["search", text],
    queryFn: async ({ signal }) =>
      dataOf(await client.GET("/api/parts/search", { params: { query: { text } }, signal })),
    enabled: text.trim() !== "",
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });

export const sheetQuery = (id: string) =>
  queryOptions({
    queryKey: ["sheet", id],
    queryFn: async () =>
      dataOf(await client.GET("/api/parts/{part_id}/sheet", { params: { path: { part_id: id } } })),
  });

export const purposesQuery = queryOptions({
  queryKey: ["purposes"],
  queryFn: async () => dataOf(await client.GET("/api/purposes")),
  staleTime: Infinity,
});

export const placesQuery = queryOptions({
  queryKey: ["places"],
  queryFn: async () => dataOf(await client.GET("/api/places")),
  staleTime: Infinity,
});

export const templateKindsQuery = queryOptions({
  queryKey: ["template-kinds"],
  queryFn: async () => dataOf(await client.GET("/api/template-kinds")),
  staleTime: Infinity,
});

export const requirementKindsQuery = queryOptions({
  queryKey: ["requirement-kinds"],
  queryFn: async () => dataOf(await client.GET("/api/requirement-kinds")),
  staleTime: Infinity,
});

/** A purpose with what was chosen and typed of it; as it came where `asked` is null. */
export const askedQuery = (purposeId: string, asked: AskedRequest | null) =>
  queryOptions({
    queryKey: ["purposes", purposeId, asked],
    queryFn: async () => {
      if (!asked) throw new Error("nothing is asked of the purpose");
      const path = { purpose_id: purposeId };
      return dataOf(
        await client.POST("/api/purposes/{purpose_id}/asked", { params: { path }, body: asked }),
      );
    },
    enabled: asked !== null,
    staleTime: Infinity,
    placeholderData: (before: Purpose | undefined) =>
      before?.id === purposeId ? before : undefined,
  });

export const firstKitQuery = (answers: FirstKitRequest | null) =>
  queryOptions({
    queryKey: ["first-kit", answers],
    queryFn: async ({ signal }) => {
      if (!answers) throw new Error("a first kit needs its answers");
      return dataOf(await client.POST("/api/first-kit", { body: answers, signal }));
    },
    enabled: answers !== null,
    staleTime: Infinity,
  });

const LOOK_AGAIN_MS = 700;

/** The latest search of a plan, asked for again and again while it runs. */
export const kitSearchQuery = (id: string) =>
  queryOptions({
    queryKey: ["kits", id],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/kits", {
          params: { path: { plan_id: id } },
          signal,
        }),
      ),
    refetchInterval: ({ state }) => (state.data?.running ? LOOK_AGAIN_MS : false),
  });

/** What tells nothing of what a search was asked. */
const UNREAD = { also: null, own: null, offered: null, what_gives: null };

/** Why a part is in none of the kits that a search knows. */
export const whyNotQuery = (id: string, part: string, known: KitSearch) =>
  queryOptions({
    // Whatever was asked otherwise, or is known since, may be another answer.
    queryKey: ["kits", id, "why-not", part, { ...known, kits: known.kits.length, ...UNREAD }],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/kits/why-not", {
          params: { path: { plan_id: id }, query: { part } },
          signal,
        }),
      ),
    enabled: part !== "",
    retry: false,
  });

export const alternativesQuery = (id: string, version: number, whatIf: WhatIf) =>
  queryOptions({
    queryKey: ["schools", id, version, whatIf],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/alternatives", {
          params: { path: { plan_id: id }, query: whatIfParams(whatIf) },
          signal,
        }),
      ),
    staleTime: Infinity,
  });
