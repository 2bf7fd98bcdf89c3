/** Changes to parts of one's own; every list that shows parts is read anew afterwards. */
import { useMutation, useQueryClient } from "@tanstack/react-query";

import { client, dataOf, ifMatch, ProblemError } from "../api/client";
import { partsQuery, sheetQuery } from "../api/queries";
import type { PartEdit, PartSheet } from "../api/types";

export function usePartChanges() {
  const queries = useQueryClient();
  const refresh = async (sheet?: PartSheet) => {
    if (sheet) queries.setQueryData(sheetQuery(sheet.id).queryKey, sheet);
    await Promise.all(
      [partsQuery.queryKey, ["candidates"], ["report"], ["fixes"]].map((queryKey) =>
        queries.invalidateQueries({ queryKey }),
      ),
    );
  };
  const path = (id: string) => ({ path: { part_id: id } });
  const copy = useMutation({
    mutationFn: async (id: string) =>
      dataOf(await client.POST("/api/parts/{part_id}/copy", { params: path(id) })),
    onSuccess: refresh,
  });
  const save = useMutation({
    mutationFn: async ({ sheet, edit }: { sheet: PartSheet; edit: PartEdit }) => {
      const params = { ...path(sheet.id), header: ifMatch(sheet.revision) };
      return dataOf(await client.PATCH("/api/parts/{part_id}", { params, body: edit }));
    },
    onSuccess: refresh,
    onError: async (error, { sheet }) => {
      if (error instanceof ProblemError && error.isStale)
        await queries.invalidateQueries({ queryKey: sheetQuery(sheet.id).queryKey });
    },
  });
  const moveToBin = useMutation({
    mutationFn: async (sheet: PartSheet) => {
      const params = { ...path(sheet.id), header: ifMatch(sheet.revision) };
      dataOf(await client.DELETE("/api/parts/{part_id}", { params }));
    },
    onSuccess: () => refresh(),
    onError: async (error, sheet) => {
      if (error instanceof ProblemError && error.isStale)
        await queries.invalidateQueries({ queryKey: sheetQuery(sheet.id).queryKey });
    },
  });
  const restore = useMutation({
    mutationFn: async (id: string) =>
      dataOf(await client.POST("/api/parts/{part_id}/restore", { params: path(id) })),
    onSuccess: refresh,
  });
  return { copy, save, moveToBin, restore };
}
