import { useState } from "react";
import Button from "react-bootstrap/Button";

import type { Transfer } from "../../../api/types";
import { Fields } from "../../../ui/Fields";
import { InlineForm } from "../../../ui/InlineForm";
import { useBench } from "../../bench";
import {
  EMPTY,
  namesFor,
  ROWS,
  textOfTransfer,
  transferFrom,
  transferWords,
  type TransferText,
} from "./transfer";

const MOST = 20;

/** What the kit moves: each transfer in a line, to change, take out and add. */
export function TransferList() {
  const { view, changes } = useBench();
  const { transfers } = view.plan;
  const [open, setOpen] = useState<string | null>(null);
  const [text, setText] = useState<TransferText>(EMPTY);
  const [wrong, setWrong] = useState("");
  const store = (next: Transfer[], label: string, onDone?: () => void) =>
    changes.act(
      { kind: "patch", patch: [{ op: "set", fields: { transfers: next } }], label },
      onDone,
    );
  const begin = (transfer: Transfer | null) => {
    setOpen(transfer?.id ?? "");
    setText(transfer ? textOfTransfer(transfer) : EMPTY);
    setWrong("");
  };
  const done = () => {
    const base = transfers.find((transfer) => transfer.id === open) ?? null;
    const read = transferFrom(text, new Set(transfers.map((transfer) => transfer.id)), base);
    if ("wrong" in read) {
      setWrong(read.wrong);
      return;
    }
    setWrong("");
    const next = base
      ? transfers.map((transfer) => (transfer === base ? read : transfer))
      : [...transfers, read];
    store(next, `transfer: ${read.text}`, () => setOpen(null));
  };
  const form = (
    <InlineForm
      done="Save transfer"
      busy={changes.busy}
      wrong={wrong}
      onDone={done}
      onLeave={() => setOpen(null)}
    >
      <Fields refused={wrong} rows={ROWS} names={namesFor(text)} text={text} setText={setText} />
    </InlineForm>
  );
  return (
    <section className="data-part" aria-label="Transfers">
      <h3>Transfers</h3>
      <ul className="flow-list">
        {transfers.map((transfer) => (
          <li key={transfer.id}>
            <strong>{transfer.text}</strong>
            <span className="soft">{transferWords(transfer)}</span>
            <span className="flow-actions">
              <Button
                variant="link"
                aria-label={`Change ${transfer.text}`}
                onClick={() => begin(transfer)}
              >
                Change
              </Button>
              <Button
                variant="link"
                aria-label={`Remove ${transfer.text}`}
                disabled={changes.busy}
                onClick={() =>
                  store(
                    transfers.filter((other) => other !== transfer),
                    `remove the transfer ${transfer.text}`,
                  )
                }
              >
                Remove
              </Button>
            </span>
            {open === transfer.id && form}
          </li>
        ))}
      </ul>
      {open === ""
        ? form
        : transfers.length < MOST && (
            <Button variant="" size="sm" onClick={() => begin(null)}>
              Add a transfer
            </Button>
          )}
    </section>
  );
}
