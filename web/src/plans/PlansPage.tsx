import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";

import { client, dataOf, ifMatch } from "../api/client";
import { plansQuery } from "../api/queries";
import type { PlanStrip } from "../api/types";
import { ImportDialog } from "../importing/ImportDialog";
import { PageBar } from "../ui/PageBar";
import { Failure, Loading } from "../ui/States";
import { FirstMinute } from "./FirstMinute";
import { Legend } from "./Legend";
import { Strips } from "./Strips";
import { useTitle } from "../ui/useTitle";

export function PlansPage() {
  useTitle("Plans");
  const plans = useQuery(plansQuery);
  const removal = useRemoval();
  const navigate = useNavigate();
  const [legend, setLegend] = useState(false);
  const queries = useQueryClient();
  const copy = useMutation({
    mutationFn: async (plan: PlanStrip) =>
      dataOf(
        await client.POST("/api/plans/{plan_id}/copy", { params: { path: { plan_id: plan.id } } }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: plansQuery.queryKey }),
  });
  const sound = (plans.data ?? []).filter((plan) => !plan.broken);
  return (
    <div className="plans-page">
      <PageBar current="plans" />
      {removal.removed && (
        <div className="notice" role="status">
          <span>“{removal.removed.name}” is in the bin.</span>
          <Button variant="" size="sm" autoFocus onClick={removal.restore}>
            Undo
          </Button>
        </div>
      )}
      {[removal.error, copy.error].map(
        (error) =>
          error && (
            <div key={error.message} className="notice notice-bad" role="alert">
              {error.message}
            </div>
          ),
      )}
      <main className="plans-body">
        <div className="plans-head">
          <h1>Plans</h1>
          <span className="soft grow">Each plan is one build.</span>
          {plans.data && plans.data.length > 0 && (
            <Button variant="link" aria-expanded={legend} onClick={() => setLegend(!legend)}>
              How to read a plan
            </Button>
          )}
          {sound.length > 1 && (
            <Button variant="" onClick={() => void navigate(`/compare/${firstTwo(sound)}`)}>
              Compare
            </Button>
          )}
          {plans.data?.length !== 0 && (
            <>
              <ImportDialog />
              <Button variant="primary" onClick={() => void navigate("/new")}>
                New plan
              </Button>
            </>
          )}
        </div>
        {legend && plans.data && plans.data.length > 0 && <Legend />}
        {plans.isPending && <Loading what="the plans" />}
        {plans.isError && !plans.data && (
          <Failure error={plans.error} retry={() => void plans.refetch()} />
        )}
        {plans.data?.length === 0 && <FirstMinute />}
        {plans.data && plans.data.length > 0 && (
          <Strips plans={plans.data} onRemove={removal.remove} onCopy={copy.mutate} />
        )}
      </main>
    </div>
  );
}

function firstTwo(plans: PlanStrip[]): string {
  return plans
    .slice(0, 2)
    .map((plan) => plan.id)
    .join(",");
}

function useRemoval() {
  const queries = useQueryClient();
  const [removed, setRemoved] = useState<PlanStrip | null>(null);
  const refresh = () => queries.invalidateQueries({ queryKey: plansQuery.queryKey });
  const remove = useMutation({
    mutationFn: async (plan: PlanStrip) =>
      dataOf(
        await client.DELETE("/api/plans/{plan_id}", {
          params: { path: { plan_id: plan.id }, header: ifMatch(plan.version) },
        }),
      ),
    onSuccess: (_, plan) => {
      setRemoved(plan);
      return refresh();
    },
    onError: refresh,
  });
  const restore = useMutation({
    mutationFn: async (plan: PlanStrip) =>
      dataOf(
        await client.POST("/api/plans/{plan_id}/restore", {
          params: { path: { plan_id: plan.id } },
        }),
      ),
    onSettled: () => {
      setRemoved(null);
      return refresh();
    },
  });
  return {
    removed,
    remove: remove.mutate,
    restore: () => removed && restore.mutate(removed),
    error: remove.error ?? restore.error,
  };
}
