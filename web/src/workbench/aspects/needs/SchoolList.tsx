import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";

import { client, dataOf } from "../../../api/client";
import { plansQuery, schoolsQuery } from "../../../api/queries";
import type { School } from "../../../api/types";
import { change } from "../../../ui/numbers";
import { useBench } from "../../bench";

/** Where people differ: the side this plan is on, and the other one as a variant in one press. */
export function SchoolList() {
  const { view, whatIf, report } = useBench();
  const schools = useQuery(schoolsQuery(view.id, view.version, whatIf));
  const queries = useQueryClient();
  const navigate = useNavigate();
  const make = useMutation({
    mutationFn: async (school: string) =>
      dataOf(
        await client.POST("/api/plans/{plan_id}/variant", {
          params: { path: { plan_id: view.id }, query: { school } },
        }),
      ),
    onSuccess: async (plan) => {
      await queries.invalidateQueries({ queryKey: plansQuery.queryKey });
      await navigate(`/plans/${plan.id}`);
    },
  });
  return (
    <section className="purpose-part" aria-label="Where people differ">
      <h3>Where people differ</h3>
      {schools.isPending && <p className="soft">Trying the other sides…</p>}
      {[schools.error, make.error].map(
        (error) =>
          error && (
            <p key={error.message} role="alert" className="tone-stops">
              {error.message}
            </p>
          ),
      )}
      <ul className="school-list">
        {(schools.data ?? []).map((school) => (
          <li key={school.id}>
            <span>
              This plan {school.side}; it could {school.other}.
              <div className="soft tabular">
                {school.why_not || `${school.title}: ${effects(school, report.cost.currency)}`}
              </div>
              {(school.steps ?? []).map((step) => (
                <div key={step} className="soft">
                  {step}
                </div>
              ))}
            </span>
            {school.patch.length > 0 && (
              <Button
                variant=""
                size="sm"
                disabled={make.isPending}
                aria-label={`Make a variant: ${school.other}`}
                onClick={() => make.mutate(school.id)}
              >
                Make a variant
              </Button>
            )}
          </li>
        ))}
      </ul>
      {schools.data?.length === 0 && (
        <p className="soft">Nothing to differ about until there is more of a kit.</p>
      )}
    </section>
  );
}

function effects(school: School, currency: string): string {
  const { effect } = school;
  if (!effect) return "";
  const snags =
    effect.stops > 0
      ? `${effect.stops} ${effect.stops > 1 ? "snags that stop" : "snag that stops"} it`
      : "nothing stops it";
  const parts = [
    change(Number(effect.cost_delta), currency),
    change(effect.source_delta_w, "W"),
    change(effect.die_delta_k, "°C"),
    snags,
  ];
  return parts.filter(Boolean).join(", ");
}
