import type { Flow } from "../api/types";
import { Amount } from "../ui/Amount";
import { askable, flowAnswer, type FlowAnswer } from "./answers";

interface Props {
  flows: Flow[];
  typed: Record<string, FlowAnswer>;
  onChange: (typed: Record<string, FlowAnswer>) => void;
}

/** How much moves, where the purpose makes that matter. */
export function AskedFlows({ flows, typed, onChange }: Props) {
  const asked = askable(flows);
  if (asked.length === 0) return null;
  return (
    <section className="asked-flows" aria-label="How much it moves">
      <h3>How much it moves</h3>
      {asked.map((flow) => {
        const answer = typed[flow.id] ?? flowAnswer(flow);
        const put = (change: Partial<FlowAnswer>) =>
          onChange({ ...typed, [flow.id]: { ...answer, ...change } });
        return (
          <fieldset key={flow.id} className="asked-flow">
            <legend>{flow.text}</legend>
            <Amount
              id={`flow-${flow.id}-amount`}
              label={flow.amount_gb === null ? "how many at once" : "at a time"}
              unit={flow.amount_gb === null ? "" : "GB"}
              value={answer.amount}
              onChange={(amount) => put({ amount })}
            />
            {flow.amount_gb !== null && (
              <Amount
                id={`flow-${flow.id}-within`}
                label="within"
                unit="min"
                placeholder="no hurry"
                value={answer.within}
                onChange={(within) => put({ within })}
              />
            )}
          </fieldset>
        );
      })}
    </section>
  );
}
