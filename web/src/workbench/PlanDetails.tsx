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
          ? "It was changed elsewhere in the meantime. Look at what is different, and save again."
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
            Name, place, budget
          </Modal.Title>
        </Modal.Header>
        <Modal.Body className="details-form">
          <Field label="Name" id={`${id}-name`}>
            <Form.Control
              id={`${id}-name`}
              value={text.name}
              maxLength={120}
              onChange={put("name")}
              autoFocus
            />
          </Field>
          <Field label="What it must do" id={`${id}-purpose`}>
            <Form.Control
              as="textarea"
              rows={3}
              id={`${id}-purpose`}
              value={text.purpose}
              maxLength={1000}
              onChange={put("purpose")}
            />
          </Field>
          <Field label="Where it will live" id={`${id}-place`}>
            <Form.Control
              id={`${id}-place`}
              value={text.placeName}
              maxLength={200}
              onChange={put("placeName")}
            />
          </Field>
          <div className="field-row">
            <Field label="Status" id={`${id}-status`}>
              <Form.Select id={`${id}-status`} value={text.status} onChange={put("status")}>
                {PLAN_STATES.map((state) => (
                  <option key={state} value={state}>
                    {planStateWord(state)}
                  </option>
                ))}
              </Form.Select>
            </Field>
            <Field label="How many are to be built" id={`${id}-copies`}>
              <Form.Control
                id={`${id}-copies`}
                inputMode="numeric"
                value={text.copies}
                onChange={put("copies")}
              />
            </Field>
            <Field label="Coldest day" id={`${id}-cold`} unit={shownUnit("°C")}>
              <FigureInput
                id={`${id}-cold`}
                inputMode="text"
                unit="°C"
                value={text.coldest}
                onChange={(coldest) => setText({ ...text, coldest })}
              />
            </Field>
            <Field label="Hottest day" id={`${id}-hot`} unit={shownUnit("°C")}>
              <FigureInput
                id={`${id}-hot`}
                inputMode="text"
                unit="°C"
                value={text.hottest}
                onChange={(hottest) => setText({ ...text, hottest })}
              />
            </Field>
            <Field label="Height above the sea" id={`${id}-alt`} unit="m">
              <FigureInput
                id={`${id}-alt`}
                inputMode="text"
                unit="m"
                value={text.altitude}
                onChange={(altitude) => setText({ ...text, altitude })}
              />
            </Field>
            <Field label="How it stands" id={`${id}-stands`}>
              <Form.Select id={`${id}-stands`} value={text.mounting} onChange={put("mounting")}>
                <option value="table">flat on a table</option>
                <option value="feet">on feet</option>
                <option value="hung">hung, free all round</option>
              </Form.Select>
            </Field>
            <Field label="Sun on it, at its strongest" id={`${id}-sun`} unit="W/m²">
              <Form.Control
                id={`${id}-sun`}
                inputMode="decimal"
                value={text.sun}
                onChange={put("sun")}
              />
            </Field>
            <Field label="Who can touch it" id={`${id}-touch`}>
              <Form.Select id={`${id}-touch`} value={text.touchedBy} onChange={put("touchedBy")}>
                <option value="nobody">nobody</option>
                <option value="adults">adults</option>
                <option value="children">children</option>
              </Form.Select>
            </Field>
            <Field label="What feeds it there" id={`${id}-power`}>
              <Form.Select id={`${id}-power`} value={text.power} onChange={put("power")}>
                <option value="mains">mains</option>
                <option value="network">the network lead</option>
                <option value="vehicle">a vehicle</option>
                <option value="battery">a battery</option>
                <option value="sun">the sun</option>
              </Form.Select>
            </Field>
            <Field label="Network there" id={`${id}-network`}>
              <Form.Select id={`${id}-network`} value={text.network} onChange={put("network")}>
                <option value="both">by wire and by radio</option>
                <option value="wired">by wire only</option>
                <option value="wifi">by radio only</option>
                <option value="none">none</option>
              </Form.Select>
            </Field>
            <Field label="Dust in the air" id={`${id}-dust`}>
              <Form.Select id={`${id}-dust`} value={text.dust} onChange={put("dust")}>
                <option value="clean">hardly any</option>
                <option value="some">some</option>
                <option value="much">much: sawdust, flour, chaff</option>
              </Form.Select>
            </Field>
            <Field label="May be heard, at 1 m" id={`${id}-noise`} unit="dB(A)">
              <Form.Control
                id={`${id}-noise`}
                inputMode="decimal"
                value={text.noise}
                placeholder="nobody minds"
                onChange={put("noise")}
              />
            </Field>
            <Field label="Currency" id={`${id}-currency`}>
              <Form.Control
                id={`${id}-currency`}
                maxLength={3}
                value={text.currency}
                onChange={put("currency")}
              />
            </Field>
            <Field label="What one of another costs in it" id={`${id}-rates`}>
              <Form.Control
                id={`${id}-rates`}
                value={text.rates}
                placeholder={text.currency === "EUR" ? "USD 0.92" : "EUR 1.08"}
                onChange={put("rates")}
              />
            </Field>
            <Field label="Budget for all of them" id={`${id}-budget`} unit={text.currency}>
              <Form.Control
                id={`${id}-budget`}
                inputMode="decimal"
                value={text.budget}
                placeholder="none"
                onChange={put("budget")}
              />
            </Field>
          </div>
          <Form.Check
            id={`${id}-wet`}
            className="mt-2"
            label="Water reaches it: rain, splashes or dripping damp"
            checked={text.wet}
            onChange={(event) => setText({ ...text, wet: event.target.checked })}
          />
          <Form.Check
            id={`${id}-root`}
            label="Its root file system is read-only, so that a pulled plug spoils nothing"
            checked={text.readOnly}
            onChange={(event) => setText({ ...text, readOnly: event.target.checked })}
          />
          <Form.Check
            id={`${id}-lift`}
            className="mt-2"
            label="The board’s setting that lifts the USB port limit is on (at your own risk: a supply that cannot give the current shuts down)"
            checked={text.lift}
            onChange={(event) => setText({ ...text, lift: event.target.checked })}
          />
          <Form.Check
            id={`${id}-push`}
            className="mt-2"
            label="The drive slot is set one generation faster than certified (soak it before you trust it)"
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
                What you typed is not saved.
              </span>
              <Button variant="" onClick={onClose}>
                Throw it away
              </Button>
              <Button variant="primary" autoFocus onClick={() => setLeaving(false)}>
                Go on typing
              </Button>
            </>
          ) : (
            <>
              <Button variant="" onClick={leave}>
                Leave as it was
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
