import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useId, useMemo, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { Link, useNavigate } from "react-router";

import { client, dataOf } from "../api/client";
import { preferencesQuery } from "../api/preferences";
import {
  askedQuery,
  firstKitQuery,
  requirementKindsQuery,
  partsQuery,
  searchQuery,
  placesQuery,
  purposesQuery,
} from "../api/queries";
import type { FirstKitRequest, PartView, Plan, Purpose, Requirement } from "../api/types";
import { kindWord } from "../ui/kinds";
import { announce } from "../ui/announce";
import { FigureInput } from "../ui/FigureInput";
import { NamedFigures } from "../ui/NamedFigures";
import { LeaveGuard } from "../ui/LeaveGuard";
import { PageBar } from "../ui/PageBar";
import { placeMeans } from "../ui/placeWords";
import { shownUnit } from "../ui/displayUnits";
import { Failure, Loading } from "../ui/States";
import { FIELDS, POWER_SOURCES } from "../api/labels";
import {
  askedFrom,
  impliedPower,
  NO_ANSWERS,
  requestFrom,
  requirementsOf,
  withAmount,
  withForm,
  withoutRequirement,
  withPlace,
  withPurpose,
  withRequirement,
  type Answers,
  type PowerSource,
} from "./answers";
import { RequiredTransfers } from "./RequiredTransfers";
import { FirstKitPane, hasKit, shownKit } from "./FirstKitPane";
import { RequirementForm } from "../requirements/RequirementForm";
import { LookedFor } from "../requirements/LookedFor";
import { useSettled } from "./useSettled";
import { useTitle } from "../ui/useTitle";
import { Options } from "../ui/Options";

/** New plan; beside them what the answers ask, and a first kit that gives it. */
export function NewPlanPage() {
  useTitle("New plan");
  const purposes = useQuery(purposesQuery);
  const places = useQuery(placesQuery);
  const [answers, setAnswers] = useState<Answers>(NO_ANSWERS);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const purposeList = useMemo(() => purposes.data ?? [], [purposes.data]);
  const placeList = useMemo(() => places.data ?? [], [places.data]);
  const { purpose, waits } = useAsked(answers, purposeList);
  const read = useMemo(
    () => requestFrom(answers, purpose, placeList),
    [answers, purpose, placeList],
  );
  const request = useSettled("request" in read && !waits ? read.request : null);
  const found = useQuery({ ...firstKitQuery(request), placeholderData: keepPreviousData });
  const [cheaperFor, setCheaperFor] = useState<FirstKitRequest | null>(null);
  const cheaper = request !== null && cheaperFor === request;
  // What is begun is what is shown: not while an answer that was just given is still on its way.
  const answered = "request" in read && read.request === request && !waits && !found.isFetching;
  const create = useMutation({
    mutationFn: async (plan: Plan) =>
      dataOf(await client.POST("/api/plans", { body: { name: plan.name, plan } })),
    onSuccess: (plan) => navigate(`/plans/${plan.id}`),
  });
  const bare = useMutation({
    mutationFn: async (name: string) =>
      dataOf(await client.POST("/api/plans", { body: { name, plan: null } })),
    onSuccess: (plan) => navigate(`/plans/${plan.id}`),
  });
  const going = [create, bare].some((begun) => begun.isPending || begun.isSuccess);
  const dirty = !going && JSON.stringify(answers) !== JSON.stringify(NO_ANSWERS);
  const requirements = purpose ? requirementsOf(answers, purpose) : [];
  const failed = purposes.error ?? places.error;
  return (
    <div className="plans-page">
      <PageBar current="plans" />
      {failed && !(purposes.data && places.data) && (
        <Failure
          error={failed}
          retry={() => {
            void purposes.refetch();
            void places.refetch();
          }}
        />
      )}
      <LeaveGuard dirty={dirty} what="a new plan" />
      {(purposes.isPending || places.isPending) && <Loading what="the purposes" />}
      {purposes.data && places.data && (
        <div className="begin-page">
          <main className="questions" aria-label="New plan">
            <h1>New plan</h1>
            <WhatQuestion
              answers={answers}
              purposes={purposeList}
              onChoose={(entry) => setAnswers(withPurpose(answers, entry, placeList))}
              onForm={(form) => setAnswers(withForm(answers, form))}
              onName={(name) => setAnswers({ ...answers, name })}
            />
            <WhereQuestion
              answers={answers}
              implied={impliedPower(requirements)}
              onChange={setAnswers}
            />
            <OwnedQuestion
              owned={answers.owned}
              onChange={(change) => setAnswers((now) => ({ ...now, owned: change(now.owned) }))}
            />
            <CostQuestion
              budget={answers.budget}
              onChange={(budget) => setAnswers({ ...answers, budget })}
            />
          </main>
          <aside className="implied" aria-label="What the answers mean">
            {purpose ? (
              <>
                <AskedFor
                  purpose={purpose}
                  requirements={requirements}
                  amounts={answers.amounts}
                  onAmount={(id, typed) => setAnswers(withAmount(answers, id, typed))}
                  onAdd={(requirement) => setAnswers(withRequirement(answers, requirement))}
                  onRemove={(id) => setAnswers(withoutRequirement(answers, id))}
                />
                <RequiredTransfers
                  key={purpose.id}
                  purpose={purpose}
                  typed={answers.transfers}
                  onChange={(transfers) => setAnswers({ ...answers, transfers })}
                />
                <FirstKitPane
                  request={request}
                  missing={"missing" in read ? read.missing : ""}
                  found={found}
                  cheaper={cheaper}
                  setCheaper={(on) => setCheaperFor(on ? request : null)}
                  onStop={() =>
                    void queries.cancelQueries({ queryKey: firstKitQuery(request).queryKey })
                  }
                />
              </>
            ) : (
              <div className="quiet-state">
                <strong>Your requirements and a first kit appear here.</strong>
                <span>
                  Choose a purpose. You will see what the kit must do, common mistakes, and the
                  lowest-priced kit without problems.
                </span>
              </div>
            )}
            <div className="begin-actions">
              {[create.error, bare.error].map(
                (error) =>
                  error && (
                    <p key={error.message} role="alert" className="tone-problem">
                      {error.message}
                    </p>
                  ),
              )}
              <Button
                variant=""
                disabled={bare.isPending || !(answers.name.trim() || purpose)}
                onClick={() =>
                  found.data && request
                    ? create.mutate(named(found.data.empty, request))
                    : bare.mutate(answers.name.trim() || (purpose?.title ?? ""))
                }
              >
                Create without a kit
              </Button>
              <Button
                variant="primary"
                disabled={
                  !found.data || !hasKit(found.data) || !answered || !request || create.isPending
                }
                onClick={() =>
                  found.data &&
                  request &&
                  create.mutate(named(shownKit(found.data, cheaper).plan, request))
                }
              >
                Create with this kit
              </Button>
            </div>
          </aside>
        </div>
      )}
    </div>
  );
}

/** The purpose with its form and amounts, as the server words it; and whether that is on its way. */
function useAsked(answers: Answers, purposes: Purpose[]) {
  const shipped = purposes.find((entry) => entry.id === answers.purposeId);
  const typed = shipped ? askedFrom(answers, shipped) : { asked: null };
  const asked = "asked" in typed ? typed.asked : null;
  const key = JSON.stringify(asked);
  const settled = useSettled(key);
  const found = useQuery(askedQuery(answers.purposeId, JSON.parse(settled) as typeof asked));
  const waits = settled !== key || (settled !== "null" && (found.isFetching || found.isError));
  const known = found.data?.id === answers.purposeId ? found.data : undefined;
  return { purpose: key === "null" ? shipped : (known ?? shipped), waits };
}

function named(plan: Plan, request: FirstKitRequest): Plan {
  return { ...plan, name: request.name };
}

interface WhatProps {
  answers: Answers;
  purposes: Purpose[];
  onChoose: (purpose: Purpose) => void;
  onForm: (form: string) => void;
  onName: (name: string) => void;
}

function WhatQuestion({ answers, purposes, onChoose, onForm, onName }: WhatProps) {
  const id = useId();
  const chosen = purposes.find((entry) => entry.id === answers.purposeId);
  return (
    <fieldset className="question">
      <legend>What must it do?</legend>
      <div className="purpose-list" role="radiogroup" aria-label="Purpose">
        {purposes.map((purpose) => (
          <label key={purpose.id} className={purpose.id === answers.purposeId ? "chosen" : ""}>
            <input
              type="radio"
              name={`${id}-purpose`}
              checked={purpose.id === answers.purposeId}
              onChange={() => onChoose(purpose)}
            />
            {purpose.title}
          </label>
        ))}
      </div>
      {chosen && chosen.forms.length > 0 && (
        <div className="purpose-forms" role="radiogroup" aria-label={`Kind: ${chosen.title}`}>
          {chosen.forms.map((form, place) => (
            <label key={form.id}>
              <input
                type="radio"
                name={`${id}-form`}
                checked={answers.form === form.id || (answers.form === "" && place === 0)}
                onChange={() => onForm(place === 0 ? "" : form.id)}
              />
              {form.title}
            </label>
          ))}
        </div>
      )}
      <div className="question-row">
        <Form.Label htmlFor={`${id}-name`}>Name of the plan</Form.Label>
        <Form.Control
          id={`${id}-name`}
          value={answers.name}
          maxLength={120}
          autoComplete="off"
          placeholder={chosen?.title ?? "Orchard frost camera"}
          onChange={(event) => onName(event.target.value)}
        />
      </div>
    </fieldset>
  );
}

interface WhereProps {
  answers: Answers;
  implied: ReturnType<typeof impliedPower>;
  onChange: (answers: Answers) => void;
}

function WhereQuestion({ answers, implied, onChange }: WhereProps) {
  const id = useId();
  const places = useQuery(placesQuery).data ?? [];
  const choose = (placeId: string) => {
    const place = places.find((entry) => entry.id === placeId);
    if (place) onChange(withPlace(answers, place));
  };
  const chosen = places.find((entry) => entry.id === answers.placeId);
  const day = (field: "coldest" | "hottest", label: string) => (
    <div className="question-row">
      <Form.Label htmlFor={`${id}-${field}`}>{label}</Form.Label>
      <div className="with-unit">
        <FigureInput
          id={`${id}-${field}`}
          className="tabular"
          inputMode="text"
          unit="°C"
          value={answers[field]}
          onChange={(text) => onChange({ ...answers, [field]: text })}
        />
        <span className="unit">{shownUnit("°C")}</span>
      </div>
    </div>
  );
  return (
    <fieldset className="question">
      <legend>Where will it be used?</legend>
      <div className="question-grid">
        <div className="question-row">
          <Form.Label htmlFor={`${id}-place`}> Location</Form.Label>
          <Form.Select
            id={`${id}-place`}
            value={answers.placeId}
            onChange={(event) => choose(event.target.value)}
          >
            <option value="" disabled>
              {" "}
              Choose
            </option>
            {places.map((place) => (
              <option key={place.id} value={place.id}>
                {place.title}
              </option>
            ))}
          </Form.Select>
        </div>
        {day("coldest", "Lowest ambient")}
        {day("hottest", "Highest ambient")}
        <div className="question-row">
          <Form.Label htmlFor={`${id}-power`}>Power source</Form.Label>
          <Form.Select
            id={`${id}-power`}
            value={answers.power}
            onChange={(event) => onChange({ ...answers, power: event.target.value as PowerSource })}
          >
            <Options of={POWER_SOURCES} />
          </Form.Select>
        </div>
        {answers.power === "solar" && (
          <div className="question-row two-wide">
            <Form.Label htmlFor={`${id}-latitude`}>Latitude</Form.Label>
            <div className="with-unit">
              <Form.Control
                id={`${id}-latitude`}
                className="tabular"
                inputMode="text"
                placeholder="50"
                aria-describedby={`${id}-latitude-help`}
                value={answers.latitude}
                onChange={(event) => onChange({ ...answers, latitude: event.target.value })}
              />
              <span className="unit">°</span>
              <NamedFigures
                label="Latitude"
                named={FIELDS.place.latitude_deg.named}
                value={answers.latitude}
                onChange={(latitude) => onChange({ ...answers, latitude })}
              />
            </div>
          </div>
        )}
      </div>
      {answers.power === "solar" && (
        <p id={`${id}-latitude-help`} className="soft">
          The panel must deliver enough in the darkest month. From 35° to 60° its yield falls to a
          twelfth. South of the equator the latitude is negative.
        </p>
      )}
      {implied && (
        <p className={implied.power === answers.power ? "soft" : "tone-tight"}>
          {implied.power === answers.power
            ? `Power source set by the requirement “${implied.by}”.`
            : `The requirement “${implied.by}” needs another power source: ${POWER_SOURCES[implied.power]}.`}
        </p>
      )}
      {chosen &&
        placeMeans({ ...chosen.place, power: answers.power }).map((text) => (
          <p key={text} className="soft">
            {text}
          </p>
        ))}
    </fieldset>
  );
}

interface OwnedProps {
  owned: string[];
  onChange: (change: (owned: string[]) => string[]) => void;
}

const MOST_MATCHES = 8;
const MOST_LINES = 50;

/** The lines of a list without bullets and numbers, as many as are looked up at once. */
function linesOf(pasted: string): string[] {
  return pasted
    .split(/[\r\n;]+/)
    .map((line) => line.replace(/^[\s\-*•]*(\d+\s*[x×.)]\s*)?/i, "").trim())
    .filter((line) => line !== "")
    .slice(0, MOST_LINES);
}

function isReal({ origin }: PartView): boolean {
  return origin !== "typical";
}

function OwnedQuestion({ owned, onChange }: OwnedProps) {
  const id = useId();
  const parts = useQuery(partsQuery).data ?? [];
  const real = parts.filter(isReal);
  const [text, setText] = useState("");
  const [notFound, setNotFound] = useState<string[]>([]);
  const queries = useQueryClient();
  const found = useQuery(searchQuery(text)).data ?? [];
  const matches =
    text.trim() === ""
      ? []
      : found.flatMap((partId) => real.filter((part) => part.id === partId)).slice(0, MOST_MATCHES);
  const label = (part: (typeof real)[number]) => `${part.maker} ${part.model}`;
  // Lines that are pasted are looked up one by one; the best match of each is listed, to be removed
  // where it is wrong.
  const takeLines = async (pasted: string) => {
    const lines = linesOf(pasted);
    const known = (await queries.query(partsQuery)).filter(isReal);
    const best = await Promise.all(
      lines.map(async (line) => {
        const ids = await queries.query(searchQuery(line));
        return ids.find((partId) => known.some((part) => part.id === partId));
      }),
    );
    const ids = best.filter((partId) => partId !== undefined);
    onChange((owned) => [...new Set([...owned, ...ids])]);
    setNotFound(lines.filter((_, place) => best[place] === undefined));
    announce(`${ids.length} of ${lines.length} lines found.`);
  };
  const toggle = (partId: string) =>
    onChange((owned) =>
      owned.includes(partId) ? owned.filter((e) => e !== partId) : [...owned, partId],
    );
  return (
    <fieldset className="question">
      <legend>Which parts do you own?</legend>
      <div className="question-row">
        <Form.Label htmlFor={`${id}-own`}>Search for a part</Form.Label>
        <Form.Control
          id={`${id}-own`}
          type="search"
          value={text}
          autoComplete="off"
          placeholder="name, kind or a value on its label"
          aria-describedby={`${id}-own-help`}
          onChange={(event) => setText(event.target.value)}
          onPaste={(event) => {
            const pasted = event.clipboardData.getData("text");
            if (linesOf(pasted).length < 2) return;
            event.preventDefault();
            takeLines(pasted).catch(() => setNotFound(linesOf(pasted)));
          }}
          onKeyDown={(event) => {
            if (event.key !== "Enter") return;
            event.preventDefault();
            const first = matches[0];
            if (first && !owned.includes(first.id)) toggle(first.id);
          }}
        />
      </div>
      <p id={`${id}-own-help`} className="soft">
        Or paste a list, one part per line.
      </p>
      {notFound.length > 0 && (
        <p role="status" className="tone-tight">
          Not found: {notFound.join("; ")}. Search for each by another name, or add a custom part.
        </p>
      )}
      {text.trim() !== "" && (
        <div className="owned-matches" role="group" aria-label="Matching parts">
          {matches.map((part) => (
            <Button
              key={part.id}
              variant=""
              size="sm"
              aria-pressed={owned.includes(part.id)}
              onClick={() => toggle(part.id)}
            >
              {label(part)}{" "}
              <span className="soft">
                {kindWord(part.kind)}
                {part.summary && `: ${part.summary}`}
              </span>
            </Button>
          ))}
          <Link className="btn btn-sm" to="/parts">
            Not listed? Add a custom part
          </Link>
        </div>
      )}
      {owned.length > 0 && (
        <ul className="owned-list">
          {owned.map((partId) => {
            const part = real.find((entry) => entry.id === partId);
            return (
              <li key={partId}>
                <span>
                  {part ? label(part) : partId}{" "}
                  {part && <span className="soft">{kindWord(part.kind)}</span>}
                </span>
                <Button
                  variant="link"
                  aria-label={`Remove ${part?.model ?? partId}`}
                  onClick={() => onChange((now) => now.filter((entry) => entry !== partId))}
                >
                  Remove
                </Button>
              </li>
            );
          })}
        </ul>
      )}
    </fieldset>
  );
}

function CostQuestion({ budget, onChange }: { budget: string; onChange: (text: string) => void }) {
  const currency = useQuery(preferencesQuery).data?.currency ?? "EUR";
  const id = useId();
  return (
    <fieldset className="question">
      <legend>Budget for parts</legend>
      <div className="question-row">
        <Form.Label htmlFor={`${id}-budget`}>Budget</Form.Label>
        <div className="with-unit narrow">
          <Form.Control
            id={`${id}-budget`}
            className="tabular"
            inputMode="decimal"
            placeholder="No limit"
            value={budget}
            onChange={(event) => onChange(event.target.value)}
          />
          <span className="unit">{currency}</span>
        </div>
      </div>
    </fieldset>
  );
}

interface AskedProps {
  purpose: Purpose;
  requirements: Requirement[];
  /** As typed, by requirement. */
  amounts: Record<string, string>;
  onAmount: (id: string, typed: string) => void;
  onAdd: (requirement: Requirement) => void;
  onRemove: (id: string) => void;
}

/** The needs in plain words, and what people usually get wrong. */
function AskedFor({ purpose, requirements, amounts, onAmount, onAdd, onRemove }: AskedProps) {
  const kinds = useQuery(requirementKindsQuery).data ?? [];
  return (
    <section className="asked" aria-label="Requirements">
      <h2>Requirements</h2>
      <ul className="asked-list">
        {requirements.map((requirement) => (
          <li key={requirement.id}>
            <span>{requirement.text}</span>
            <LookedFor
              requirement={requirement}
              kinds={kinds}
              typed={amounts[requirement.id]}
              onAmount={(typed) => onAmount(requirement.id, typed)}
            />
            <Button
              variant="link"
              aria-label={`Remove the requirement: ${requirement.text}`}
              onClick={() => onRemove(requirement.id)}
            >
              Remove
            </Button>
          </li>
        ))}
        {requirements.length === 0 && <li className="soft">No requirements yet. Add one.</li>}
      </ul>
      <RequirementForm
        key={purpose.id}
        taken={requirements.map((requirement) => requirement.id)}
        onAdd={(requirement, added) => {
          onAdd(requirement);
          added();
        }}
      />
      {purpose.mistakes.length > 0 && (
        <p className="soft">
          <strong>Common mistakes:</strong> {purpose.mistakes.join(" ")}
        </p>
      )}
      {purpose.cautions.map((caution) => (
        <p key={caution} className="part-caution">
          {caution}
        </p>
      ))}
    </section>
  );
}
