import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Offcanvas from "react-bootstrap/Offcanvas";

import { stepReportQuery, stepsQuery } from "../api/queries";
import { Cobble } from "../ui/Cobble";
import { FamilyRuler } from "../ui/FamilyRuler";
import { familyFigure, money, severityWord } from "../ui/numbers";
import { Failure, Loading } from "../ui/States";
import { useBench } from "./bench";

/** Every step of the plan with its time: look at one, and go back to it. */
export function HistoryPanel({ onClose }: { onClose: () => void }) {
  const { view, changes } = useBench();
  const id = useId();
  const steps = useQuery(stepsQuery(view.id, view.version));
  const [chosen, setChosen] = useState<number | null>(null);
  const goBack = (number: number) => changes.act({ kind: "back", number }, onClose);
  return (
    <Offcanvas
      show
      onHide={onClose}
      placement="end"
      className="working-panel"
      aria-labelledby={`${id}-title`}
    >
      <Offcanvas.Header closeButton>
        <Offcanvas.Title id={`${id}-title`} as="h2" className="fs-6">
          History
        </Offcanvas.Title>
      </Offcanvas.Header>
      <Offcanvas.Body>
        {steps.isPending && <Loading what="the steps" />}
        {steps.isError && !steps.data && <Failure error={steps.error} />}
        <ol className="history" reversed>
          {steps.data?.map((step) => (
            <li key={step.number}>
              <button
                type="button"
                className="btn-plain history-step"
                aria-expanded={chosen === step.number}
                onClick={() => setChosen(chosen === step.number ? null : step.number)}
              >
                <span>{step.label}</span>
                <span className="soft tabular">
                  {step.current ? "now" : new Date(step.created_at).toLocaleString()}
                </span>
              </button>
              {chosen === step.number && (
                <StepLook
                  plan={view.id}
                  number={step.number}
                  current={step.current}
                  busy={changes.busy}
                  onBack={() => goBack(step.number)}
                />
              )}
            </li>
          ))}
        </ol>
      </Offcanvas.Body>
    </Offcanvas>
  );
}

interface LookProps {
  plan: string;
  number: number;
  current: boolean;
  busy: boolean;
  onBack: () => void;
}

function StepLook({ plan, number, current, busy, onBack }: LookProps) {
  const report = useQuery(stepReportQuery(plan, number));
  if (report.isPending) return <Loading what="the step" />;
  if (!report.data) return <Failure error={report.error} />;
  const { severity, families, cost } = report.data;
  return (
    <div className="history-look">
      <p className="history-verdict">
        <Cobble severity={severity} silent /> {severityWord(severity)},{" "}
        {money(cost.total, cost.currency)}
      </p>
      {families.map((family) => (
        <div key={family.id} className="history-ruler">
          <span>{family.label}</span>
          <FamilyRuler family={family} width={110} height={18} size="sm" />
          <span className={family.checked ? "tabular" : "soft"}>
            {family.checked ? familyFigure(family) : family.why_not}
          </span>
        </div>
      ))}
      {!current && (
        <Button variant="primary" size="sm" disabled={busy} onClick={onBack}>
          Restore this step
        </Button>
      )}
    </div>
  );
}
