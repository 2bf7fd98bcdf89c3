import Button from "react-bootstrap/Button";
import { Link } from "react-router";

import type { FamilyReport, PlanStrip } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { FamilyRuler } from "../ui/FamilyRuler";
import { familyFigure, money, severityWord } from "../ui/numbers";
import { textOf } from "../ui/text";
import { STATUSES } from "../api/labels";

const RULER_WIDTH = 78;
const RULER_HEIGHT = 24;

interface Props {
  plans: PlanStrip[];
  onRemove: (plan: PlanStrip) => void;
  onCopy: (plan: PlanStrip) => void;
}

/** Plans below each other, so that each column of rulers has one limit line through all of them. */
export function Strips({ plans, onRemove, onCopy }: Props) {
  return (
    <div className="strips">
      <div className="strip-head" aria-hidden>
        <span />
        {plans
          .find((plan) => !plan.broken)
          ?.families.map((family) => (
            <span key={family.id} className="column">
              {family.label}
            </span>
          ))}
        <span className="money">To buy</span>
        <span />
      </div>
      {plans.map((plan) =>
        plan.broken ? (
          <BrokenStrip key={plan.id} plan={plan} onRemove={onRemove} />
        ) : (
          <article key={plan.id} className="strip" aria-label={plan.name}>
            <div className="strip-name">
              <Cobble severity={plan.severity} />
              <div>
                <Link to={`/plans/${plan.id}`}>{plan.name}</Link>
                <div className="strip-place">{whereAndHowFar(plan)}</div>
                <div className="strip-worst">{verdict(plan)}</div>
              </div>
            </div>
            {plan.families.map((family) => (
              <SmallRuler key={family.id} family={family} />
            ))}
            <div className="strip-money tabular">{money(plan.total, plan.currency)}</div>
            <div className="strip-tools">
              <Button
                variant=""
                size="sm"
                onClick={() => onCopy(plan)}
                aria-label={`Copy ${plan.name}`}
              >
                Copy
              </Button>
              <Button
                variant=""
                size="sm"
                onClick={() => onRemove(plan)}
                aria-label={`Move to bin: ${plan.name}`}
              >
                Move to bin
              </Button>
            </div>
          </article>
        ),
      )}
    </div>
  );
}

/** A plan that this version cannot read or judge: why, and what can be done with it all the same. */
function BrokenStrip({ plan, onRemove }: Pick<Props, "onRemove"> & { plan: PlanStrip }) {
  return (
    <article className="strip broken" aria-label={plan.name}>
      <div className="strip-name">
        <Cobble severity="note" />
        <div>
          <span>{plan.name}</span>
          <div className="strip-place">cannot be checked; the other plans are unchanged</div>
        </div>
      </div>
      <p className="strip-why">{textOf(plan.worst ?? "")}</p>
      <div className="strip-tools">
        <a className="btn btn-sm" href={`/api/plans/${plan.id}/document`} download>
          Export
        </a>
        <Button
          variant=""
          size="sm"
          onClick={() => onRemove(plan)}
          aria-label={`Move to bin: ${plan.name}`}
        >
          Move to bin
        </Button>
      </div>
    </article>
  );
}

function whereAndHowFar(plan: PlanStrip): string {
  const state = plan.status === "planning" ? "" : STATUSES[plan.status].toLowerCase();
  return [plan.place, state].filter(Boolean).join(", ");
}

function verdict(plan: PlanStrip): string {
  if (plan.items === 0) return "No parts yet.";
  return plan.worst ? textOf(plan.worst) : "No problems found.";
}

function SmallRuler({ family }: { family: FamilyReport }) {
  const words = family.checked
    ? `${family.label}: ${severityWord(family.severity)}, ${familyFigure(family)}`
    : `${family.label}: ${family.why_not}`;
  return (
    <div className={`strip-ruler ${family.checked ? "" : "unjudged"}`} title={words}>
      <span className="visually-hidden">{words}</span>
      {family.checked && family.ruler_share === null && (
        <Cobble severity={family.severity} silent />
      )}
      {family.ruler_share !== null && (
        <FamilyRuler family={family} width={RULER_WIDTH} height={RULER_HEIGHT} size="md" />
      )}
    </div>
  );
}
