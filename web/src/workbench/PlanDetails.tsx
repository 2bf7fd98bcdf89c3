import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";

import { ProblemError } from "../api/client";
import { Fields } from "../ui/Fields";
import { LeaveGuard } from "../ui/LeaveGuard";
import { Meanwhile } from "../ui/Meanwhile";
import { useTyped } from "../ui/typed";
import { useBench } from "./bench";
import { CHECKS, detailsOf, fieldsOf, GRID, listed, ROWS, WIDE } from "./planDetailsForm";

/** Name, purpose, place, budget and settings of the plan. Typed text is read on saving. */
export function PlanDetails({ onClose }: { onClose: () => void }) {
  const { view, changes } = useBench();
  const { plan } = view;
  const id = useId();
  const typed = useTyped(detailsOf(plan), view.version);
  const { text, setText } = typed;
  const [error, setError] = useState("");
  const [leaving, setLeaving] = useState(false);
  const form = { rows: ROWS, text, setText, size: "lg" as const, refused: error };

  const save = async () => {
    const read = fieldsOf(text, typed.changed);
    if ("wrong" in read) {
      setError(read.wrong);
      return;
    }
    setError("");
    if (!typed.dirty) {
      onClose();
      return;
    }
    try {
      const label = listed(typed.changed.map((key) => ROWS[key].label.toLowerCase()));
      await changes.save([{ op: "set", fields: read.fields }], label.slice(0, 200));
      onClose();
    } catch (refusal) {
      if (!(refusal instanceof ProblemError)) throw refusal;
      setError(
        refusal.isStale
          ? "This plan was changed in another tab. Check the differences and save again."
          : refusal.message,
      );
    }
  };
  const leave = () => (typed.dirty && !leaving ? setLeaving(true) : onClose());

  return (
    <Modal show onHide={leave} aria-labelledby={`${id}-title`}>
      <Form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title id={`${id}-title`} as="h2" className="fs-5">
            Plan details
          </Modal.Title>
        </Modal.Header>
        <Modal.Body className="details-form">
          <Fields {...form} names={WIDE} first="name" />
          <div className="field-row">
            <Fields
              {...form}
              names={GRID}
              instead={{
                budget: { unit: String(text.currency) },
                rates: { empty: text.currency === "EUR" ? "USD 0.92" : "EUR 1.08" },
              }}
            />
          </div>
          <Fields {...form} names={CHECKS} />
          <Meanwhile typed={typed} rows={ROWS} />
          <LeaveGuard dirty={typed.dirty && !changes.busy} what="this plan" />
          {error && (
            <p role="alert" className="tone-problem">
              {error}
            </p>
          )}
        </Modal.Body>
        <Modal.Footer>
          {leaving && typed.dirty ? (
            <>
              <span role="alert" className="me-auto">
                Discard your changes?
              </span>
              <Button variant="" onClick={onClose}>
                Discard
              </Button>
              <Button variant="primary" autoFocus onClick={() => setLeaving(false)}>
                Keep editing
              </Button>
            </>
          ) : (
            <>
              <Button variant="" onClick={leave}>
                Cancel
              </Button>
              <Button
                variant="primary"
                type="submit"
                disabled={!String(text.name).trim() || changes.busy}
              >
                {changes.busy ? "Saving…" : "Save"}
              </Button>
            </>
          )}
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
