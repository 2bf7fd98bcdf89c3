import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import type { Transfer } from "../../../api/types";
import { Amount } from "../../../ui/Amount";
import { InlineForm } from "../../../ui/InlineForm";
import { useBench } from "../../bench";
import { EMPTY, transferFrom, transferWords, textOfTransfer, type TransferText } from "./transfer";
import { ENDS } from "../../../api/labels";

const MOST = 20;

/** What the kit moves: each flow in a line, to change, take out and add. */
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
      <Fields text={text} setText={setText} />
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

function Fields({ text, setText }: { text: TransferText; setText: (text: TransferText) => void }) {
  const put = (change: Partial<TransferText>) => setText({ ...text, ...change });
  const files = text.kind === "files";
  return (
    <>
      <Form.Group controlId="flow-text">
        <Form.Label>Name</Form.Label>
        <Form.Control
          size="sm"
          maxLength={120}
          value={text.text}
          onChange={(event) => put({ text: event.target.value })}
        />
      </Form.Group>
      <EndSelect
        id="flow-source"
        label="From"
        value={text.source}
        onChange={(source) => put({ source })}
      />
      <EndSelect
        id="flow-sink"
        label="To"
        value={text.target}
        onChange={(target) => put({ target })}
      />
      <Form.Group controlId="flow-kind">
        <Form.Label>Type</Form.Label>
        <Form.Select
          size="sm"
          value={text.kind}
          onChange={(event) => put({ kind: event.target.value as TransferText["kind"] })}
        >
          <option value="files">Files, from time to time</option>
          <option value="stream">Stream, without a gap</option>
        </Form.Select>
      </Form.Group>
      {files ? (
        <>
          <Amount
            id="flow-amount"
            label="Amount each time"
            unit="GB"
            value={text.amount}
            onChange={(amount) => put({ amount })}
          />
          <Amount
            id="flow-within"
            label="Time limit (optional)"
            unit="min"
            value={text.within}
            onChange={(within) => put({ within })}
          />
          <Amount
            id="flow-file"
            label="File size (if small)"
            unit="MB"
            value={text.fileMb}
            onChange={(fileMb) => put({ fileMb })}
          />
          <Amount
            id="flow-runs"
            label="How often"
            unit="per day"
            value={text.runs}
            onChange={(runs) => put({ runs })}
          />
        </>
      ) : (
        <>
          <Amount
            id="flow-stream"
            label="Rate of one stream"
            unit="MB/s"
            value={text.stream}
            onChange={(stream) => put({ stream })}
          />
          <Amount
            id="flow-once"
            label="Number of streams"
            unit=""
            value={text.atOnce}
            onChange={(atOnce) => put({ atOnce })}
          />
          <Amount
            id="flow-hours"
            label="Hours per day"
            unit="h"
            value={text.hours}
            onChange={(hours) => put({ hours })}
          />
        </>
      )}
      <Form.Group controlId="flow-protocol">
        <Form.Label>Network protocol</Form.Label>
        <Form.Select
          size="sm"
          value={text.protocol}
          onChange={(event) => put({ protocol: event.target.value as TransferText["protocol"] })}
        >
          <option value="newer">Shared folder (newer protocol)</option>
          <option value="older">Shared folder (older protocol)</option>
          <option value="transfer">Plain copy</option>
        </Form.Select>
      </Form.Group>
      <Form.Group controlId="flow-during">
        <Form.Label>At the same time as the phase</Form.Label>
        <Form.Control
          size="sm"
          maxLength={60}
          placeholder="on its own"
          value={text.during}
          onChange={(event) => put({ during: event.target.value })}
        />
      </Form.Group>
      <Form.Check
        id="flow-stays"
        label="Data stays in the kit"
        checked={text.stays}
        onChange={(event) => put({ stays: event.target.checked })}
      />
    </>
  );
}

interface EndProps {
  id: string;
  label: string;
  value: Transfer["source"];
  onChange: (end: Transfer["source"]) => void;
}

function EndSelect({ id, label, value, onChange }: EndProps) {
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Select
        size="sm"
        value={value}
        onChange={(event) => onChange(event.target.value as Transfer["source"])}
      >
        {Object.entries(ENDS).map(([end, words]) => (
          <option key={end} value={end}>
            {words}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}
