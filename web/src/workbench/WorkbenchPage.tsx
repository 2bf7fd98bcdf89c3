import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";

import { planQuery } from "../api/queries";
import { Failure, Loading } from "../ui/States";
import { Workbench } from "./Workbench";

export function WorkbenchPage() {
  const { planId = "" } = useParams();
  const plan = useQuery(planQuery(planId));
  if (plan.isPending) return <Loading what="the plan" />;
  if (!plan.data)
    return (
      <Failure error={plan.error} retry={() => void plan.refetch()}>
        <Link to="/">Open Plans</Link>
      </Failure>
    );
  return <Workbench key={planId} view={plan.data} />;
}
