import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";

import { rulesQuery } from "../api/queries";
import type { RuleView } from "../api/types";
import { FAMILIES } from "../api/labels";
import { Cobble } from "../ui/Cobble";
import { PageBar } from "../ui/PageBar";
import { Failure, Loading } from "../ui/States";
import { useTitle } from "../ui/useTitle";

/** Every rule: what it checks, why, formula, source, and the plans in which it fires. */
export function RuleBookPage() {
  useTitle("Rules");
  const rules = useQuery(rulesQuery);
  return (
    <div className="plans-page">
      <PageBar current="rules" />
      <main className="plans-body rule-book">
        <div className="plans-head">
          <h1>Rules</h1>
          <span className="soft grow">What is checked, why, and by which source.</span>
        </div>
        {rules.isPending && <Loading what="the rules" />}
        {rules.isError && !rules.data && (
          <Failure error={rules.error} retry={() => void rules.refetch()} />
        )}
        {rules.data &&
          Object.entries(FAMILIES).map(([family, label]) => (
            <Chapter
              key={family}
              label={label}
              rules={rules.data.filter((rule) => rule.family === family)}
            />
          ))}
      </main>
    </div>
  );
}

function Chapter({ label, rules }: { label: string; rules: RuleView[] }) {
  if (rules.length === 0) return null;
  return (
    <section className="rule-chapter" aria-label={label}>
      <h2>{label}</h2>
      {rules.map((rule) => (
        <article
          key={rule.id}
          id={rule.id}
          className="rule-entry"
          aria-label={`${rule.id} ${rule.title}`}
        >
          <div>
            <h3>{rule.title}</h3>
            <div className="soft tabular">{rule.id}</div>
          </div>
          <div>
            <p>{rule.why}</p>
            <dl>
              <dt>Formula</dt>
              <dd>{rule.formula}</dd>
              <dt>Source</dt>
              <dd>{rule.source}</dd>
            </dl>
          </div>
          <ul className="rule-plans">
            {rule.fires_in.length === 0 && <li className="soft">no snag in any plan</li>}
            {rule.fires_in.map((firing) => (
              <li key={firing.plan}>
                <Cobble severity={firing.severity} size={16} />
                <Link to={`/plans/${firing.plan}`}>{firing.name}</Link>
              </li>
            ))}
          </ul>
        </article>
      ))}
    </section>
  );
}
