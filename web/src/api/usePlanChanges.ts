/** Every change to one plan: patch, undo, redo, with what to do when another tab was faster. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";

import { client, dataOf, ifMatch, ProblemError } from "./client";
import { planQuery, plansQuery, whatIfParams, type WhatIf } from "./queries";
import type { AskedAnewRequest, Change, PlanView } from "./types";

export type Action =
  | { kind: "patch"; patch: Change[]; label?: string }
  | { kind: "adopt"; whatIf: WhatIf }
  | { kind: "ask"; asked: AskedAnewRequest }
  | { kind: "back"; number: number }
  | { kind: "undo" }
  | { kind: "redo" };

async function send(id: string, version: number, action: Action): Promise<PlanView> {
  const params = { path: { plan_id: id }, header: ifMatch(version) };
  switch (action.kind) {
    case "patch": {
      const body = { patch: action.patch, label: action.label ?? null };
      return dataOf(await client.PATCH("/api/plans/{plan_id}", { params, body }));
    }
    case "adopt": {
      const query = whatIfParams(action.whatIf);
      return dataOf(
        await client.POST("/api/plans/{plan_id}/apply-assumptions", {
          params: { ...params, query },
        }),
      );
    }
    case "ask": {
      const body = action.asked;
      return dataOf(await client.POST("/api/plans/{plan_id}/asked", { params, body }));
    }
    case "back":
      return dataOf(
        await client.POST("/api/plans/{plan_id}/revisions/{number}/go-back", {
          params: { ...params, path: { plan_id: id, number: action.number } },
        }),
      );
    case "undo":
      return dataOf(await client.POST("/api/plans/{plan_id}/undo", { params }));
    case "redo":
      return dataOf(await client.POST("/api/plans/{plan_id}/redo", { params }));
  }
}

export interface PlanChanges {
  /** `onDone` is called once the change is stored, with the plan as it is then. */
  act: (action: Action, onDone?: (view: PlanView) => void) => void;
  /** The same for a form that stays open until it is stored: a refusal is thrown to it. */
  save: (patch: Change[], label?: string) => Promise<PlanView>;
  busy: boolean;
  /** The last refusal that has not been dealt with. */
  refused: { error: ProblemError; action: Action } | null;
  /** Make the refused change again, on the plan as it is now. */
  again: () => void;
  dismiss: () => void;
}

export function usePlanChanges(id: string): PlanChanges {
  const queries = useQueryClient();
  const [refused, setRefused] = useState<PlanChanges["refused"]>(null);
  const mutationOf = (action: Action) => {
    const current = queries.getQueryData(planQuery(id).queryKey);
    if (!current) throw new Error("a plan must be read before it is changed");
    return send(id, current.version, action);
  };
  const stored = (plan: PlanView) => {
    queries.setQueryData(planQuery(id).queryKey, plan);
    void queries.invalidateQueries({ queryKey: plansQuery.queryKey });
  };
  const mutation = useMutation({
    // One after the other, so that each names the version that the one before left.
    scope: { id: `plan-${id}` },
    mutationFn: mutationOf,
    onSuccess: stored,
    onError: async (error, action) => {
      if (error instanceof ProblemError) {
        setRefused({ error, action });
        if (error.isStale) await queries.invalidateQueries({ queryKey: planQuery(id).queryKey });
      } else throw error;
    },
  });
  const { mutate } = mutation;
  const act = useCallback(
    (action: Action, onDone?: (view: PlanView) => void) => mutate(action, { onSuccess: onDone }),
    [mutate],
  );
  const quiet = useMutation({
    scope: { id: `plan-${id}` },
    mutationFn: mutationOf,
    onSuccess: stored,
    onError: async (error) => {
      if (error instanceof ProblemError && error.isStale)
        await queries.invalidateQueries({ queryKey: planQuery(id).queryKey });
    },
  });
  const { mutateAsync } = quiet;
  const save = useCallback(
    (patch: Change[], label?: string) => mutateAsync({ kind: "patch", patch, label }),
    [mutateAsync],
  );
  const again = () => {
    const action = refused?.action;
    setRefused(null);
    if (action) mutate(action);
  };
  const busy = mutation.isPending || quiet.isPending;
  return { act, save, busy, refused, again, dismiss: () => setRefused(null) };
}
