import { useQuery } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { useNavigate, useSearchParams } from "react-router";

import { planQuery } from "../api/queries";
import type { Change, PartSheet, PlanView, Role } from "../api/types";
import { usePlanChanges } from "../api/usePlanChanges";
import { ChangeNotice } from "../ui/ChangeNotice";

/** Puts the part into the plan that the catalogue was opened from, and goes back there. */
export function UseInPlan({ part }: { part: PartSheet }) {
  const [params] = useSearchParams();
  const planId = params.get("plan");
  return planId === null ? null : <UseButton part={part} planId={planId} />;
}

function UseButton({ part, planId }: { part: PartSheet; planId: string }) {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const plan = useQuery(planQuery(planId));
  const changes = usePlanChanges(planId);
  if (!plan.data) return null;
  const change = changeFor(plan.data, part, params.get("line"), params.get("role") as Role | null);
  if (!change) return null;
  const use = () => {
    changes.act({ kind: "patch", patch: [change] }, () => void navigate(`/plans/${planId}`));
  };
  return (
    <>
      <ChangeNotice changes={changes} />
      <Button variant="primary" disabled={changes.busy} onClick={use}>
        {labelFor(change, plan.data)}
      </Button>
    </>
  );
}

/** In place of the line it was opened from, newer figures for that line, or as a new line. */
function changeFor(
  view: PlanView,
  part: PartSheet,
  lineId: string | null,
  role: Role | null,
): Change | null {
  const line = view.plan.lines.find((entry) => entry.id === lineId);
  if (line && line.part !== part.id) return { op: "swap", line: line.id, part: part.id };
  if (line) {
    const kept = line.part_revision ?? part.revision;
    if (kept === part.revision) return null;
    return {
      op: "edit",
      line: line.id,
      quantity: null,
      owned: null,
      part_revision: part.revision,
    };
  }
  return role && { op: "add", role, part: part.id, line: null, quantity: 1, owned: false };
}

function labelFor(change: Change, view: PlanView): string {
  const where = `in “${view.plan.name}”`;
  if (change.op === "edit") return `Use these values ${where}`;
  return change.op === "add" ? `Add ${where.replace("in", "to")}` : `Use ${where}`;
}
