import type { Purpose } from "../api/types";
import { Amount } from "../ui/Amount";
import { askable, transferAnswer, type TransferAnswer } from "./answers";

interface Props {
  purpose: Purpose;
  typed: Record<string, TransferAnswer>;
  onChange: (typed: Record<string, TransferAnswer>) => void;
}

/** How much moves, where the purpose makes that matter. */
export function RequiredTransfers({ purpose, typed, onChange }: Props) {
  const asked = askable(purpose);
  if (asked.length === 0) return null;
  return (
    <section className="asked-flows" aria-label="Amount of data">
      <h3>Amount of data</h3>
      {asked.map((transfer) => {
        const answer = typed[transfer.id] ?? transferAnswer(transfer);
        const put = (change: Partial<TransferAnswer>) =>
          onChange({ ...typed, [transfer.id]: { ...answer, ...change } });
        return (
          <fieldset key={transfer.id} className="asked-flow">
            <legend>{transfer.text}</legend>
            <Amount
              id={`flow-${transfer.id}-amount`}
              label={transfer.amount_gb === null ? "At the same time" : "Each time"}
              unit={transfer.amount_gb === null ? "" : "GB"}
              value={answer.amount}
              onChange={(amount) => put({ amount })}
            />
            {transfer.amount_gb !== null && (
              <Amount
                id={`flow-${transfer.id}-within`}
                label="Within"
                unit="min"
                placeholder="No limit"
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
