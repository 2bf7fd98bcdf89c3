import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";

import { ProblemError } from "../api/client";
import { FigureInput } from "../ui/FigureInput";
import { LeaveGuard } from "../ui/LeaveGuard";
import { Meanwhile } from "../ui/Meanwhile";
import { PLAN_STATES, planStateWord } from "../ui/planStates";
import { shownUnit } from "../ui/displayUnits";
import { useTyped } from "../ui/typed";
import { useBench } from "./bench";
import { detailsOf, fieldsOf, LABELS, listed, UNITS, type DetailsText } from "./planDetailsForm";
import { DUST, MOUNTINGS, NETWORKS, POWER_SOURCES, REACH } from "../api/labels";

/** Name, purpose, place, budget and settings of the plan. Typed text is read on saving. */
export function PlanDetails({ onClose }: { onClose: () => void }) {
  const { view, changes } = useBench();
  const { plan } = view;
  const id = useId();
  const typed = useTyped(detailsOf(plan), view.version);
  const { text, setText } = typed;
  const [error, setError] = useState("");
  const [leaving, setLeaving] = useState(false);
  const put = (field: keyof DetailsText) => (event: { target: { value: string } }) =>
    setText({ ...text, [field]: event.target.value });

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
      const label = listed(typed.changed.map((key) => LABELS[key].toLowerCase()));
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
          <Field label={LABELS.name} id={`${id}-name`}>
            <Form.Control
              id={`${id}-name`}
              value={text.name}
              maxLength={120}
              onChange={put("name")}
              autoFocus
            />
          </Field>
          <Field label={LABELS.purpose} id={`${id}-purpose`}>
            <Form.Control
              as="textarea"
              rows={3}
              id={`${id}-purpose`}
              value={text.purpose}
              maxLength={1000}
              onChange={put("purpose")}
            />
          </Field>
          <Field label={LABELS.placeName} id={`${id}-place`}>
            <Form.Control
              id={`${id}-place`}
              value={text.placeName}
              maxLength={200}
              onChange={put("placeName")}
            />
          </Field>
          <div className="field-row">
            <Field label={LABELS.status} id={`${id}-status`}>
              <Form.Select id={`${id}-status`} value={text.status} onChange={put("status")}>
                {PLAN_STATES.map((state) => (
                  <option key={state} value={state}>
                    {planStateWord(state)}
                  </option>
                ))}
              </Form.Select>
            </Field>
            <Field label={LABELS.copies} id={`${id}-copies`}>
              <Form.Control
                id={`${id}-copies`}
                inputMode="numeric"
                value={text.copies}
                onChange={put("copies")}
              />
            </Field>
            <Field label={LABELS.coldest} id={`${id}-cold`} unit={shownUnit("°C")}>
              <FigureInput
                id={`${id}-cold`}
                inputMode="text"
                unit="°C"
                value={text.coldest}
                onChange={(coldest) => setText({ ...text, coldest })}
              />
            </Field>
            <Field label={LABELS.hottest} id={`${id}-hot`} unit={shownUnit("°C")}>
              <FigureInput
                id={`${id}-hot`}
                inputMode="text"
                unit="°C"
                value={text.hottest}
                onChange={(hottest) => setText({ ...text, hottest })}
              />
            </Field>
            <Field label={LABELS.altitude} id={`${id}-alt`} unit="m">
              <FigureInput
                id={`${id}-alt`}
                inputMode="text"
                unit="m"
                value={text.altitude}
                onChange={(altitude) => setText({ ...text, altitude })}
              />
            </Field>
            <Field label={LABELS.mounting} id={`${id}-stands`}>
              <Form.Select id={`${id}-stands`} value={text.mounting} onChange={put("mounting")}>
                <Choices of={MOUNTINGS} />
              </Form.Select>
            </Field>
            <Field label={LABELS.sun} id={`${id}-sun`} unit="W/m²">
              <Form.Control
                id={`${id}-sun`}
                inputMode="decimal"
                value={text.sun}
                onChange={put("sun")}
              />
            </Field>
            <Field label={LABELS.touchedBy} id={`${id}-touch`}>
              <Form.Select id={`${id}-touch`} value={text.touchedBy} onChange={put("touchedBy")}>
                <Choices of={REACH} />
              </Form.Select>
            </Field>
            <Field label={LABELS.power} id={`${id}-power`}>
              <Form.Select id={`${id}-power`} value={text.power} onChange={put("power")}>
                <Choices of={POWER_SOURCES} />
              </Form.Select>
            </Field>
            <Field label={LABELS.network} id={`${id}-network`}>
              <Form.Select id={`${id}-network`} value={text.network} onChange={put("network")}>
                <Choices of={NETWORKS} />
              </Form.Select>
            </Field>
            <Field label={LABELS.dust} id={`${id}-dust`}>
              <Form.Select id={`${id}-dust`} value={text.dust} onChange={put("dust")}>
                <Choices of={DUST} />
              </Form.Select>
            </Field>
            <Field label={`${LABELS.noise} at 1 m`} id={`${id}-noise`} unit="dB(A)">
              <Form.Control
                id={`${id}-noise`}
                inputMode="decimal"
                value={text.noise}
                placeholder="No limit"
                onChange={put("noise")}
              />
            </Field>
            <Field label={LABELS.currency} id={`${id}-currency`}>
              <Form.Control
                id={`${id}-currency`}
                maxLength={3}
                value={text.currency}
                onChange={put("currency")}
              />
            </Field>
            <Field label={LABELS.rates} id={`${id}-rates`}>
              <Form.Control
                id={`${id}-rates`}
                value={text.rates}
                placeholder={text.currency === "EUR" ? "USD 0.92" : "EUR 1.08"}
                onChange={put("rates")}
              />
            </Field>
            <Field label={LABELS.budget} id={`${id}-budget`} unit={text.currency}>
              <Form.Control
                id={`${id}-budget`}
                inputMode="decimal"
                value={text.budget}
                placeholder="No limit"
                onChange={put("budget")}
              />
            </Field>
          </div>
          <Form.Check
            id={`${id}-wet`}
            className="mt-2"
            label="Gets wet (rain, splashes or condensation)"
            checked={text.wet}
            onChange={(event) => setText({ ...text, wet: event.target.checked })}
          />
          <Form.Check
            id={`${id}-root`}
            label="Read-only root file system (survives a power cut)"
            checked={text.readOnly}
            onChange={(event) => setText({ ...text, readOnly: event.target.checked })}
          />
          <Form.Check
            id={`${id}-lift`}
            className="mt-2"
            label="Lift the USB port limit in the board settings (at your own risk: a power supply that cannot deliver the current shuts down)"
            checked={text.lift}
            onChange={(event) => setText({ ...text, lift: event.target.checked })}
          />
          <Form.Check
            id={`${id}-push`}
            className="mt-2"
            label="Run the drive slot above its certified rate (test it for a day first)"
            checked={text.push}
            onChange={(event) => setText({ ...text, push: event.target.checked })}
          />
          <Meanwhile typed={typed} labels={LABELS} units={UNITS} />
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
              <Button variant="primary" type="submit" disabled={!text.name.trim() || changes.busy}>
                {changes.busy ? "Saving…" : "Save"}
              </Button>
            </>
          )}
        </Modal.Footer>
      </Form>
    </Modal>
  );
}

/** The options of a choice, as the table of labels has them. */
function Choices({ of }: { of: Record<string, string> }) {
  return Object.entries(of).map(([value, label]) => (
    <option key={value} value={value}>
      {label}
    </option>
  ));
}

interface FieldProps {
  label: string;
  id: string;
  unit?: string;
  children: React.ReactNode;
}

function Field({ label, id, unit, children }: FieldProps) {
  return (
    <div className="mb-2">
      <Form.Label htmlFor={id} className="mb-1">
        {label}
      </Form.Label>
      <div className="with-unit">
        {children}
        {unit && <span className="unit">{unit}</span>}
      </div>
    </div>
  );
}
