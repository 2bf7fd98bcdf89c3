import { useQueries, useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { Link, useNavigate, useParams } from "react-router";

import { AS_PLANNED, plansQuery, reportQuery } from "../api/queries";
import type { PlanStrip, Report } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { FamilyRuler } from "../ui/FamilyRuler";
import { familyFigure, figureTone } from "../ui/numbers";
import { PageBar } from "../ui/PageBar";

import { Failure, Loading } from "../ui/States";
import { factRows, idsOf, kitRows, MOST_PLANS, type SideRow } from "./compareRows";
import { useTitle } from "../ui/useTitle";

/** Two to four plans beside each other: rulers on one limit line each, figures, kits. */
export function ComparePage() {
  useTitle("Compare plans");
  const ids = idsOf(useParams().ids);
  const navigate = useNavigate();
  const plans = useQuery(plansQuery);
  const chosen = ids.flatMap((id) => plans.data?.find((plan) => plan.id === id) ?? []);
  const reports = useQueries({
    queries: chosen.map((plan) => reportQuery(plan.id, plan.version, AS_PLANNED)),
  });
  const ready = reports.flatMap((query) => query.data ?? []);
  const show = (next: string[]) => void navigate(`/compare/${next.join(",")}`, { replace: true });
  const others = (plans.data ?? []).filter((plan) => !plan.broken && !ids.includes(plan.id));
  return (
    <div className="plans-page">
      <PageBar current="plans" />
      <main className="plans-body">
        <div className="plans-head">
          <h1>Compare</h1>
          <span className="soft grow">Two to four plans on the same limit lines.</span>
          {ids.length < MOST_PLANS && others.length > 0 && (
            <Form.Select
              className="side-add"
              aria-label="Add a plan"
              value=""
              onChange={(event) => show([...chosen.map((plan) => plan.id), event.target.value])}
            >
              <option value="">Add a plan…</option>
              {others.map((plan) => (
                <option key={plan.id} value={plan.id}>
                  {plan.name}
                </option>
              ))}
            </Form.Select>
          )}
        </div>
        {plans.isPending && <Loading what="the plans" />}
        {plans.isError && !plans.data && (
          <Failure error={plans.error} retry={() => void plans.refetch()} />
        )}
        {plans.data && chosen.length === 0 && (
          <p className="soft">These plans no longer exist. Add other plans.</p>
        )}
        {chosen.length > 0 && ready.length === chosen.length && (
          <SideTable
            plans={chosen}
            reports={ready}
            onDrop={(id) => show(ids.filter((entry) => entry !== id))}
          />
        )}
        {chosen.length === 1 && <p className="soft">Add a second plan to compare.</p>}
      </main>
    </div>
  );
}

interface TableProps {
  plans: PlanStrip[];
  reports: Report[];
  onDrop: (id: string) => void;
}

function SideTable({ plans, reports, onDrop }: TableProps) {
  const id = useId();
  const [onlyDifferences, setOnlyDifferences] = useState(false);
  const shown = (rows: SideRow[]) => rows.filter((row) => row.differs || !onlyDifferences);
  return (
    <>
      <Form.Check
        id={`${id}-only`}
        label="Only differences"
        checked={onlyDifferences}
        onChange={(event) => setOnlyDifferences(event.target.checked)}
      />
      <div className="side-scroll" tabIndex={0} role="region" aria-label="Plans by column">
        <table className="side-table">
          <thead>
            <tr>
              <th />
              {plans.map((plan) => (
                <th key={plan.id} scope="col">
                  <Cobble severity={plan.severity} size={18} />
                  <Link to={`/plans/${plan.id}`}>{plan.name}</Link>
                  <Button
                    variant="link"
                    aria-label={`Remove ${plan.name}`}
                    onClick={() => onDrop(plan.id)}
                  >
                    Remove
                  </Button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <Rows rows={shown(factRows(reports))} />
            {(reports[0]?.families ?? []).map((family, index) => (
              <tr key={family.id}>
                <th scope="row">{family.label}</th>
                {reports.map((report, at) => (
                  <td key={plans[at]?.id}>
                    <SideRuler report={report} index={index} />
                  </td>
                ))}
              </tr>
            ))}
            <Rows rows={shown(kitRows(reports))} />
          </tbody>
        </table>
      </div>
    </>
  );
}

function SideRuler({ report, index }: { report: Report; index: number }) {
  const family = report.families[index];
  if (!family) return null;
  return (
    <div className="side-ruler">
      <FamilyRuler family={family} width={110} height={22} size="lg" />
      <span className={`tabular tone-${family.checked ? figureTone(family) : "note"}`}>
        {family.checked ? familyFigure(family) : family.why_not}
      </span>
    </div>
  );
}

function Rows({ rows }: { rows: SideRow[] }) {
  return rows.map((row) => (
    <tr key={row.id} className={row.differs ? "differs" : ""}>
      <th scope="row">{row.label}</th>
      {row.cells.map((cell, index) => (
        <td key={index} className="tabular">
          {cell}
        </td>
      ))}
    </tr>
  ));
}
