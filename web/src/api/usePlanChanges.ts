/** Every change to one plan: patch, undo, redo, with what to do when another tab was faster. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";

import { client, dataOf, ifMatch, ProblemError } from "./client";
import { planQuery, plansQuery, whatIfParams, type WhatIf } from "./queries";
import type { Change, PlanView } from "./types";

export type Action =
  | { kind: "patch"; patch: Change[]; label?: string }
  | { kind: "adopt"; whatIf: WhatIf }
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
        await client.POST("/api/plans/{plan_id}/adopt", { params: { ...params, query } }),
      );
    }
    case "undo":
      return dataOf(await client.POST("/api/plans/{plan_id}/undo", { params }));
    case "redo":
      return dataOf(await client.POST("/api/plans/{plan_id}/redo", { params }));
  }
}

export interface PlanChanges {
  /** `onDone` is called once the change is stored. */
  act: (action: Action, onDone?: () => void) => void;
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
  const mutation = useMutation({
    // One after the other, so that each names the version that the one before left.
    scope: { id: `plan-${id}` },
    mutationFn: (action: Action) => {
      const current = queries.getQueryData(planQuery(id).queryKey);
      if (!current) throw new Error("a plan must be read before it is changed");
      return send(id, current.version, action);
    },
    onSuccess: (plan) => {
      queries.setQueryData(planQuery(id).queryKey, plan);
      void queries.invalidateQueries({ queryKey: plansQuery.queryKey });
    },
    onError: async (error, action) => {
      if (error instanceof ProblemError) {
        setRefused({ error, action });
        if (error.isStale) await queries.invalidateQueries({ queryKey: planQuery(id).queryKey });
      } else throw error;
    },
  });
  const { mutate } = mutation;
  const act = useCallback(
    (action: Action, onDone?: () => void) => mutate(action, { onSuccess: onDone }),
    [mutate],
  );
  const again = () => {
    const action = refused?.action;
    setRefused(null);
    if (action) mutate(action);
  };
  return { act, busy: mutation.isPending, refused, again, dismiss: () => setRefused(null) };
}
