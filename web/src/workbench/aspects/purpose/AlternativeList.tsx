import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";

import { client, dataOf } from "../../../api/client";
import { plansQuery, alternativesQuery } from "../../../api/queries";
import type { Alternative } from "../../../api/types";
import { change } from "../../../ui/numbers";
import { textOf } from "../../../ui/text";
import { useBench } from "../../bench";

/** Alternatives: the side this plan is on, and the other one as a variant in one press. */
export function AlternativeList() {
  const { view, whatIf, report } = useBench();
  const alternatives = useQuery(alternativesQuery(view.id, view.version, whatIf));
  const queries = useQueryClient();
  const navigate = useNavigate();
  const make = useMutation({
    mutationFn: async (alternative: string) =>
      dataOf(
        await client.POST("/api/plans/{plan_id}/variant", {
          params: { path: { plan_id: view.id }, query: { alternative } },
        }),
      ),
    onSuccess: async (plan) => {
      await queries.invalidateQueries({ queryKey: plansQuery.queryKey });
      await navigate(`/plans/${plan.id}`);
    },
  });
  return (
    <section className="purpose-part" aria-label="Alternatives">
      <h3>Alternatives</h3>
      {alternatives.isPending && <p className="soft">Checking alternatives…</p>}
      {[alternatives.error, make.error].map(
        (error) =>
          error && (
            <p key={error.message} role="alert" className="tone-problem">
              {error.message}
            </p>
          ),
      )}
      <ul className="school-list">
        {(alternatives.data ?? []).map((alternative) => (
          <li key={alternative.id}>
            <span>
              {alternative.question}: {alternative.side}. Alternative: {alternative.other}.
              <div className="soft tabular">
                {alternative.why_not ||
                  `${textOf(alternative.title)}: ${effects(alternative, report.cost.currency)}`}
              </div>
              {(alternative.steps ?? []).map((step) => (
                <div key={step} className="soft">
                  {step}
                </div>
              ))}
            </span>
            {alternative.patch.length > 0 && (
              <Button
                variant=""
                size="sm"
                disabled={make.isPending}
                aria-label={`Make a variant: ${alternative.other}`}
                onClick={() => make.mutate(alternative.id)}
              >
                Make a variant
              </Button>
            )}
          </li>
        ))}
      </ul>
      {alternatives.data?.length === 0 && (
        <p className="soft">No alternatives yet. Add more parts.</p>
      )}
    </section>
  );
}

function effects(alternative: Alternative, currency: string): string {
  const { effect } = alternative;
  if (!effect) return "";
  const snags =
    effect.problems > 0
      ? `${effect.problems} problem${effect.problems > 1 ? "s" : ""}`
      : "no problems";
  const parts = [
    change(Number(effect.cost_delta), currency),
    change(effect.source_delta_w, "W"),
    change(effect.die_delta_k, "°C"),
    snags,
  ];
  return parts.filter(Boolean).join(", ");
}
