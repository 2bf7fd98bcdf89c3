import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import { requirementKindsQuery } from "../../../api/queries";
import type {
  Finding,
  Requirement,
  RequirementKind,
  RequirementReport,
  Plan,
} from "../../../api/types";
import { RequirementForm } from "../../../requirements/RequirementForm";
import { LookedFor } from "../../../requirements/LookedFor";
import {
  amountOf,
  kindOf,
  requirementMark,
  requirementTally,
  requirementWord,
} from "../../../requirements/requirements";
import { Cobble } from "../../../ui/Cobble";
import { FIELDS } from "../../../api/labels";
import { Meanwhile } from "../../../ui/Meanwhile";
import { change, money } from "../../../ui/numbers";
import { placeWords } from "../../../ui/placeWords";
import { positive, readNumber } from "../../../ui/readNumber";
import { useTyped } from "../../../ui/typed";
import { useBench } from "../../bench";
import { ScheduleEditor } from "./ScheduleEditor";
import { ImageEditor } from "./ImageEditor";
import { AlternativeList } from "./AlternativeList";
import { textOf } from "../../../ui/text";

/** What it is for: needs with the parts that meet them, its day, the other schools, ready-made. */
export function PurposeView() {
  const { report, view, openDetails } = useBench();
  const place = view.plan.place;
  return (
    <>
      <div className="aspect-head">
        <h2>Purpose</h2>
        <span className="verdict">
          {report.purpose.length === 0 ? "No requirements yet" : requirementTally(report.purpose)}
        </span>
        <Button variant="link" className="ms-auto" onClick={openDetails}>
          Plan details
        </Button>
      </div>
      {view.plan.purpose && <p className="purpose-text">{view.plan.purpose}</p>}
      <p className="soft">
        {place.name || "Location"}
        {`: ${placeWords(place)}`}.
      </p>
      <Requirements />
      <ImageEditor />
      <ScheduleEditor />
      <AlternativeList />
      <ReadyMade />
    </>
  );
}

function Requirements() {
  const { report, view, changes } = useBench();
  const requirements = view.plan.requirements;
  const add = (requirement: Requirement, onDone: () => void) =>
    changes.act(
      {
        kind: "patch",
        patch: [{ op: "set", fields: { requirements: [...requirements, requirement] } }],
        label: `add the requirement ${requirement.text}`,
      },
      onDone,
    );
  return (
    <section className="purpose-part" aria-label="Requirements">
      <table className="need-table">
        <tbody>
          {report.purpose.map((entry) => (
            <RequirementRow
              key={entry.id}
              entry={entry}
              requirement={requirements.find((requirement) => requirement.id === entry.id)}
              onDrop={() =>
                changes.act({
                  kind: "ask",
                  asked: { requirement: entry.id, amount: null, text: "" },
                })
              }
            />
          ))}
        </tbody>
      </table>
      <RequirementForm taken={requirements.map((requirement) => requirement.id)} onAdd={add} />
    </section>
  );
}

interface RowProps {
  entry: RequirementReport;
  requirement: Requirement | undefined;
  onDrop: () => void;
}

function RequirementRow({ entry, requirement, onDrop }: RowProps) {
  const { report, setChosenLine, setOpenSnag } = useBench();
  const kinds = useQuery(requirementKindsQuery).data ?? [];
  const snag = report.findings.find(
    (finding) => finding.has_fixes && finding.id.endsWith(`:${entry.id}`) && isOfPurpose(finding),
  );
  const givers = report.lines.filter((line) => entry.lines.includes(line.id));
  return (
    <tr>
      <td className="mark">
        <Cobble severity={requirementMark(entry.status)} size={17} silent />
      </td>
      <th scope="row">
        {entry.text}
        {requirement && <Amount requirement={requirement} kinds={kinds} />}
      </th>
      <td>
        <span className={`tone-${requirementMark(entry.status)}`}>
          {requirementWord(entry.status)}
        </span>
        {entry.status === "met" &&
          givers.map((line) => (
            <Button
              key={line.id}
              variant="link"
              className="told"
              onClick={() => setChosenLine(line.id)}
            >
              {line.name}
            </Button>
          ))}
        <div className="soft">{textOf(entry.sentence)}</div>
        {snag && (
          <Button variant="link" onClick={() => setOpenSnag(snag.id)}>
            Show fixes<span className="visually-hidden"> for {entry.text}</span>
          </Button>
        )}
      </td>
      <td>
        <Button
          variant="link"
          aria-label={`Remove the requirement: ${entry.text}`}
          onClick={onDrop}
        >
          Remove
        </Button>
      </td>
    </tr>
  );
}

function amountText(requirement: Requirement) {
  return { amount: `${amountOf(requirement) ?? ""}`, words: requirement.text };
}

/** What a requirement looks for, its amount as a field: once that is another, its words can be. */
function Amount({ requirement, kinds }: { requirement: Requirement; kinds: RequirementKind[] }) {
  const { view, changes } = useBench();
  const typed = useTyped(amountText(requirement), view.version);
  const { amount, words } = typed.text;
  const put = (fields: Partial<typeof typed.text>) => typed.setText({ ...typed.text, ...fields });
  const [wrong, setWrong] = useState("");
  const save = () => {
    const value = positive(amount);
    if (value === null) {
      setWrong("Enter the amount as a number above 0, for example 10.");
      return;
    }
    setWrong("");
    const text = words === requirement.text ? "" : words;
    changes.act(
      { kind: "ask", asked: { requirement: requirement.id, amount: value, text } },
      (kept) => {
        const now = kept.plan.requirements.find((entry) => entry.id === requirement.id);
        if (now) typed.settle(amountText(now), kept.version);
      },
    );
  };
  return (
    <form
      className="requirement-amount"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <LookedFor
        requirement={requirement}
        kinds={kinds}
        typed={amount}
        onAmount={(next) => put({ amount: next })}
      />
      {typed.dirty && (
        <>
          <Form.Control
            size="sm"
            aria-label={`Your own words: ${requirement.text}`}
            maxLength={200}
            value={words}
            onChange={(event) => put({ words: event.target.value })}
          />
          <div className="form-actions">
            <Button type="submit" variant="primary" size="sm" disabled={changes.busy}>
              Save amount
            </Button>
            <Button
              variant=""
              size="sm"
              onClick={() => {
                setWrong("");
                typed.settle(amountText(requirement), view.version);
              }}
            >
              Cancel
            </Button>
          </div>
          <Meanwhile
            typed={typed}
            rows={{
              amount: { label: "Amount", unit: kindOf(requirement, kinds)?.unit },
              words: { label: "Your own words" },
            }}
          />
        </>
      )}
      {wrong && (
        <p role="alert" className="field-wrong">
          {wrong}
        </p>
      )}
    </form>
  );
}

/** Purpose has no margin of its own: what it finds is known by its rule. */
function isOfPurpose(finding: Finding): boolean {
  return finding.rule.startsWith("NEED-");
}

function readyText(stored: Plan["ready_made"]) {
  return { name: stored?.name ?? "", price: stored?.price ?? "" };
}

/** What could be bought instead, held against the kit; a ready-made may be the better buy. */
function ReadyMade() {
  const { view, report, changes } = useBench();
  const id = useId();
  const stored = view.plan.ready_made;
  const typed = useTyped(readyText(stored), view.version);
  const { name, price } = typed.text;
  const put = (fields: Partial<typeof typed.text>) => typed.setText({ ...typed.text, ...fields });
  const [wrong, setWrong] = useState("");
  const { cost } = report;
  const save = () => {
    const amount = price.trim() === "" ? null : readNumber(price);
    if (amount !== null && !(amount >= 0)) {
      setWrong("Enter the price as a number, for example 149.");
      return;
    }
    setWrong("");
    const next = { ...stored, name, price: amount === null ? null : amount.toFixed(2) };
    changes.act(
      {
        kind: "patch",
        patch: [{ op: "set", fields: { ready_made: next } }],
        label: "ready-made alternative",
      },
      (kept) => typed.settle(readyText(kept.plan.ready_made), kept.version),
    );
  };
  const difference = stored?.price == null ? null : Number(cost.total) - Number(stored.price);
  return (
    <section className="purpose-part" aria-label="Build or buy">
      <h3>Build or buy</h3>
      <div className="ready-made">
        <Form.Label htmlFor={`${id}-name`}>Ready-made alternative</Form.Label>
        <Form.Control
          id={`${id}-name`}
          size="sm"
          maxLength={120}
          placeholder="name of a device you could buy"
          value={name}
          onChange={(event) => put({ name: event.target.value })}
        />
        <div className="with-unit">
          <Form.Control
            size="sm"
            className="tabular"
            inputMode="decimal"
            aria-label="Price"
            placeholder="price"
            value={price}
            onChange={(event) => put({ price: event.target.value })}
          />
          <span className="unit">{cost.currency}</span>
        </div>
        {typed.dirty && (
          <Button variant="primary" size="sm" disabled={changes.busy} onClick={save}>
            Save alternative
          </Button>
        )}
      </div>
      {wrong && (
        <p role="alert" className="field-wrong">
          {wrong}
        </p>
      )}
      <Meanwhile typed={typed} rows={{ name: FIELDS.plan.ready_made, price: { label: "Price" } }} />
      {difference !== null && (
        <p>
          The kit costs {money(cost.total, cost.currency)},{" "}
          {change(difference, cost.currency) || "the same"} compared with the ready-made
          alternative.
          {difference > 0 && " The ready-made alternative is cheaper."}
        </p>
      )}
      {stored && stored.better.length + stored.worse.length > 0 && (
        <p className="soft">
          Advantages: {stored.better.join("; ")}. Disadvantages: {stored.worse.join("; ")}.
        </p>
      )}
    </section>
  );
}
