/** Query keys and fetchers, in one place. */
import { queryOptions } from "@tanstack/react-query";

import { client, dataOf } from "./client";
import type { Role } from "./types";

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

/** A report belongs to a version of the plan and to a what-if ambient (null: the plan's own). */
export const reportQuery = (id: string, version: number, ambientC: number | null) =>
  queryOptions({
    queryKey: ["report", id, version, ambientC],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/report", {
          params: { path: { plan_id: id }, query: { ambient_c: ambientC } },
          signal,
        }),
      ),
    staleTime: Infinity,
  });

export const candidatesQuery = (
  id: string,
  version: number,
  ambientC: number | null,
  role: Role,
  line: string | null,
) =>
  queryOptions({
    queryKey: ["candidates", id, version, ambientC, role, line],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/candidates", {
          params: { path: { plan_id: id }, query: { role, line, ambient_c: ambientC } },
          signal,
        }),
      ),
    staleTime: Infinity,
  });

export const fixesQuery = (
  id: string,
  version: number,
  ambientC: number | null,
  findingId: string,
) =>
  queryOptions({
    queryKey: ["fixes", id, version, ambientC, findingId],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/fixes", {
          params: { path: { plan_id: id }, query: { finding: findingId, ambient_c: ambientC } },
          signal,
        }),
      ),
    staleTime: Infinity,
  });

export const workingQuery = (
  id: string,
  version: number,
  ambientC: number | null,
  figure: string,
) =>
  queryOptions({
    queryKey: ["working", id, version, ambientC, figure],
    queryFn: async ({ signal }) =>
      dataOf(
        await client.GET("/api/plans/{plan_id}/working", {
          params: { path: { plan_id: id }, query: { figure, ambient_c: ambientC } },
          signal,
        }),
      ),
    staleTime: Infinity,
  });

export const kitTextQuery = (id: string, version: number, form: "txt" | "csv") =>
  queryOptions({
    queryKey: ["kit", id, version, form],
    queryFn: async () => {
      const options = { params: { path: { plan_id: id } }, parseAs: "text" } as const;
      return form === "txt"
        ? dataOf(await client.GET("/api/plans/{plan_id}/kit.txt", options))
        : dataOf(await client.GET("/api/plans/{plan_id}/kit.csv", options));
    },
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
