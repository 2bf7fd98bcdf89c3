import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useId, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { Link, useParams } from "react-router";

import { client, dataOf, ifMatch } from "../api/client";
import { kitSearchQuery, partsQuery, planQuery, plansQuery } from "../api/queries";
import type {
  ChosenPart,
  CriterionId,
  CriterionView,
  KitSearch,
  KitWishes,
  PlanView,
  SuggestedKit,
} from "../api/types";
import { Cobble } from "../ui/Cobble";
import { PageBar } from "../ui/PageBar";
import { roleLabel } from "../ui/roles";
import { Failure, Loading } from "../ui/States";
import { textOf } from "../ui/text";
import {
  criterionText,
  differences,
  extentOf,
  inOrder,
  isWithin,
  limitFrom,
  makersIn,
  type Limits,
  partsIn,
  requirable,
  type Sorting,
  valueOf,
} from "./kits";
import { AskWhy } from "./AskWhy";
import { Slope } from "./Slope";
import { useTitle } from "../ui/useTitle";

const MOST_COMPARED = 4;

/** The kits that no other kit beats, for the requirements of a plan. */
export function KitsPage() {
  const planId = useParams().planId ?? "";
  const plan = useQuery(planQuery(planId));
  const search = useQuery(kitSearchQuery(planId));
  useTitle(plan.data?.plan.name, "Kits");
  return (
    <div className="plans-page">
      <PageBar current="plans" />
      <main className="plans-body kits-page">
        {(plan.isPending || search.isPending) && <Loading what="the plan" />}
        {plan.isError && !plan.data && (
          <Failure error={plan.error} retry={() => void plan.refetch()} />
        )}
        {plan.data && search.data && <Kits view={plan.data} search={search.data} />}
      </main>
    </div>
  );
}

function Kits({ view, search }: { view: PlanView; search: KitSearch }) {
  const queries = useQueryClient();
  const key = kitSearchQuery(view.id).queryKey;
  const path = { params: { path: { plan_id: view.id } } };
  const start = useMutation({
    mutationFn: async (wishes: KitWishes) =>
      dataOf(await client.POST("/api/plans/{plan_id}/kits", { ...path, body: wishes })),
    onSuccess: (found) => queries.setQueryData(key, found),
  });
  const stop = useMutation({
    mutationFn: async () => dataOf(await client.DELETE("/api/plans/{plan_id}/kits", path)),
    onSettled: () => queries.invalidateQueries({ queryKey: key }),
  });
  // Whoever opens the page wants to see kits: a search begins by itself, and anew where it is gone
  // as the plan was changed or the server started again.
  const asked = useRef(false);
  useEffect(() => {
    if (search.begun || asked.current) {
      asked.current &&= !search.begun;
      return;
    }
    asked.current = true;
    start.mutate({
      criteria: search.criteria.map((one) => one.id),
      tight: false,
      without_case: false,
    });
  });
  return (
    <>
      <div className="plans-head">
        <h1>Suggested kits</h1>
        <span className="soft grow">
          for <Link to={`/plans/${view.id}`}>{view.plan.name}</Link>
        </span>
      </div>
      <p className="soft">
        Complete kits that meet the requirements of this plan. None of them is beaten: a kit that is
        better in one criterion is worse in another. Parts marked as owned cost nothing; parts that
        no requirement asks for are left out.
      </p>
      <Wishes
        search={search}
        busy={start.isPending}
        onStart={(wishes) => start.mutate(wishes)}
        onStop={() => stop.mutate()}
      />
      {start.isError && <p className="tone-problem">{start.error.message}</p>}
      <p className="kits-sure" role="status">
        {((search.running && !search.proven) || start.isPending) && <strong>Searching… </strong>}
        {search.failed || textOf(search.sure)}
        {search.begun && !search.running && !search.proven && !search.failed && " Stopped."}
      </p>
      {search.begun && !search.running && search.kits.length === 0 && (
        <ul className="kits-why">
          {search.why_none.map((line) => (
            <li key={line.text}>{textOf(line)}</li>
          ))}
        </ul>
      )}
      {search.own && <Own search={search} currency={view.plan.currency} />}
      {search.kits.length > 0 && <Found view={view} search={search} />}
      {search.begun && !search.running && <AskWhy planId={view.id} search={search} />}
      {search.proven && <WhatGives search={search} />}
    </>
  );
}

/** What less would cost where less is asked; where there is no kit, what gives one. */
function WhatGives({ search }: { search: KitSearch }) {
  const none = search.kits.length === 0;
  return (
    <section aria-label="What less would cost">
      <h2 className="kits-head">
        {none ? "What would give a kit" : "What each requirement costs"}
      </h2>
      {search.what_gives.length > 0 && (
        <ul className="kits-why">
          {search.what_gives.map((line) => (
            <li key={line.text}>{textOf(line)}</li>
          ))}
        </ul>
      )}
      <p className="soft" role="status">
        {search.running
          ? "Trying one requirement less at a time…"
          : search.what_gives.length > 0
            ? "Anything else changes nothing."
            : none
              ? "No single change gives a kit."
              : "No single requirement makes the kit dearer."}
      </p>
    </section>
  );
}

/** Where the kit of the plan stands beside those that are suggested. */
function Own({ search, currency }: { search: KitSearch; currency: string }) {
  const { own, criteria } = search;
  if (!own) return null;
  const label = (id: CriterionId) => criteria.find((one) => one.id === id)?.label ?? id;
  const figures = own.figures.flatMap((entry) => {
    const one = criteria.find(({ id }) => id === entry.criterion);
    return one ? `${one.label} ${criterionText(one, entry.value, currency)}` : [];
  });
  const better = own.better_in.map((id) => label(id).toLowerCase()).join(", ");
  const place = own.beaten_by === null ? "" : `Kit ${own.beaten_by + 1}`;
  const [stopped] = own.stopped;
  const [tight] = own.tight;
  return (
    <p className="kits-own">
      <Cobble severity={stopped ? "problem" : tight ? "tight" : "ok"} silent />{" "}
      <strong>The kit of this plan:</strong> {figures.join(", ")}.{" "}
      {stopped && `It has a problem: ${textOf(stopped)} `}
      {!stopped && tight && `A limit is tight: ${textOf(tight)} `}
      {place && better && `${place} is better (${better}) and worse in no criterion.`}
      {place && !better && `${place} is as good in every criterion.`}
      {!place && !stopped && search.kits.length > 0 && "None of these kits beats it."}
    </p>
  );
}

interface WishesProps {
  search: KitSearch;
  busy: boolean;
  onStart: (wishes: KitWishes) => void;
  onStop: () => void;
}

/** What somebody may want most, as criteria; the price is always one of them. */
const PRESETS: { label: string; criteria: CriterionId[] }[] = [
  { label: "Lowest price", criteria: ["price"] },
  { label: "Quietest", criteria: ["price", "noise"] },
  { label: "Coolest", criteria: ["price", "headroom"] },
  { label: "Smallest", criteria: ["price", "litres"] },
  { label: "Longest-lasting", criteria: ["price", "years"] },
  { label: "Least manual work", criteria: ["price", "work"] },
];

/** What the kits are compared by, and what else is asked of them. */
function Wishes({ search, busy, onStart, onStop }: WishesProps) {
  const id = useId();
  const asked = search.criteria.map((one) => one.id);
  const [criteria, setCriteria] = useState<CriterionId[]>(asked);
  const [tight, setTight] = useState(search.tight);
  const [open, setOpen] = useState(search.without_case);
  const [owned, setOwned] = useState(search.owned_only);
  const [most, setMost] = useState(search.at_most ?? "");
  const [leftOut, setLeftOut] = useState(search.left_out);
  const [makers, setMakers] = useState(search.without_makers.map(asMaker));
  const [pinned, setPinned] = useState(search.pinned);
  const parts = useQuery(partsQuery).data ?? [];
  const { offered } = search;
  const toggled = (one: CriterionId) =>
    offered
      .map((entry) => entry.id)
      .filter((entry) => (entry === one ? !criteria.includes(one) : criteria.includes(entry)));
  const usual = offered.filter((one) => one.usual).map((one) => one.id);
  const presets = [{ label: "Balanced", criteria: usual }, ...PRESETS];
  const preset = presets.findIndex((one) => one.criteria.join() === criteria.join());
  return (
    <form
      className="kits-wishes"
      onSubmit={(event) => {
        event.preventDefault();
        onStart({
          criteria,
          tight,
          without_case: open,
          owned_only: owned,
          left_out: leftOut.map((one) => one.part),
          without_makers: makers.map((one) => one.part),
          pinned: Object.fromEntries(
            pinned.map(({ role, part }): [string, string] => [role ?? "", part]),
          ),
          at_most: most.trim() === "" ? null : most.trim().replace(",", "."),
        });
      }}
    >
      <label className="kits-most" htmlFor={`${id}-preset`}>
        Looking for
        <Form.Select
          id={`${id}-preset`}
          size="sm"
          value={preset}
          onChange={(event) => {
            const chosen = presets[Number(event.target.value)];
            if (chosen) setCriteria(chosen.criteria);
          }}
        >
          {presets.map((one, place) => (
            <option key={one.label} value={place}>
              {one.label}
            </option>
          ))}
          {preset < 0 && <option value={-1}>Own choice</option>}
        </Form.Select>
      </label>
      <fieldset>
        <legend>Compare by</legend>
        {offered.map((one) => (
          <Form.Check
            key={one.id}
            id={`${id}-${one.id}`}
            label={one.label}
            title={one.help}
            checked={criteria.includes(one.id)}
            onChange={() => setCriteria(toggled(one.id))}
          />
        ))}
      </fieldset>
      <Form.Check
        id={`${id}-tight`}
        label="Tight limits allowed"
        checked={tight}
        onChange={(event) => setTight(event.target.checked)}
      />
      <Form.Check
        id={`${id}-open`}
        label="Without a case"
        checked={open}
        onChange={(event) => setOpen(event.target.checked)}
      />
      <Form.Check
        id={`${id}-owned`}
        label="Only parts I own"
        checked={owned}
        onChange={(event) => setOwned(event.target.checked)}
      />
      <label className="kits-most" htmlFor={`${id}-most`}>
        Spend at most
        <Form.Control
          id={`${id}-most`}
          size="sm"
          inputMode="decimal"
          value={most}
          placeholder="no limit"
          onChange={(event) => setMost(event.target.value)}
        />
      </label>
      <PartChoice
        label="Exclude a part"
        told="Without"
        offered={partsIn(search.kits)}
        chosen={leftOut}
        onChoose={(part) => setLeftOut(without(leftOut, part).concat({ ...part, role: null }))}
        onRemove={(part) => setLeftOut(without(leftOut, part))}
      />
      <PartChoice
        label="Exclude a maker"
        told="Without"
        offered={makersIn(search.kits).map(asMaker)}
        chosen={makers}
        onChoose={(maker) => setMakers(without(makers, maker).concat(maker))}
        onRemove={(maker) => setMakers(without(makers, maker))}
      />
      <PartChoice
        label="Require a part"
        told="With"
        offered={requirable(parts)}
        chosen={pinned}
        onChoose={(part) => setPinned(pinned.filter((one) => one.role !== part.role).concat(part))}
        onRemove={(part) => setPinned(without(pinned, part))}
      />
      <Button type="submit" size="sm" disabled={busy || criteria.length === 0}>
        {search.begun ? "Search again" : "Search"}
      </Button>
      {search.running && (
        <Button variant="" size="sm" onClick={onStop}>
          Stop
        </Button>
      )}
    </form>
  );
}

/** A maker among what is chosen. */
function asMaker(maker: string): ChosenPart {
  return { part: maker, name: maker, role: null };
}

function without(parts: ChosenPart[], { part }: ChosenPart): ChosenPart[] {
  return parts.filter((one) => one.part !== part);
}

interface PartChoiceProps {
  label: string;
  /** What stands before a part that was chosen. */
  told: string;
  offered: ChosenPart[];
  chosen: ChosenPart[];
  onChoose: (part: ChosenPart) => void;
  onRemove: (part: ChosenPart) => void;
}

/** Parts of the kits that are known, of which some are chosen; each can be removed again. */
function PartChoice({ label, told, offered, chosen, onChoose, onRemove }: PartChoiceProps) {
  const left = offered.filter((one) => !chosen.some(({ part }) => part === one.part));
  return (
    <span className="kits-parts">
      {chosen.map((one) => (
        <Button
          key={one.part}
          variant=""
          size="sm"
          aria-label={`${told} ${one.name}: remove`}
          onClick={() => onRemove(one)}
        >
          {told} {one.name} ×
        </Button>
      ))}
      <Form.Select
        size="sm"
        aria-label={label}
        value=""
        disabled={left.length === 0}
        onChange={(event) => {
          const part = left.find((one) => one.part === event.target.value);
          if (part) onChoose(part);
        }}
      >
        <option value="">{label}…</option>
        {[...new Set(left.map((one) => one.role))].map((role) => (
          <optgroup key={role} label={role ? roleLabel(role) : ""}>
            {left
              .filter((one) => one.role === role)
              .map((one) => (
                <option key={one.part} value={one.part}>
                  {one.name}
                </option>
              ))}
          </optgroup>
        ))}
      </Form.Select>
    </span>
  );
}

function Found({ view, search }: { view: PlanView; search: KitSearch }) {
  const { criteria, kits } = search;
  const currency = view.plan.currency;
  const [limits, setLimits] = useState<Limits>({});
  const [up, setUp] = useState<CriterionId | null>(null);
  const [chosen, setChosen] = useState<string[]>([]);
  const ids = kits.map(idOf);
  const places = chosen.flatMap((one) => (ids.includes(one) ? ids.indexOf(one) : []));
  const along = criteria.find((one) => one.id === "price") ?? criteria[0];
  const others = criteria.filter((one) => one !== along);
  const upward =
    others.find((one) => one.id === up) ?? others.find((one) => one.id === "margin") ?? others[0];
  const choose = (place: number) => {
    const own = ids[place] ?? "";
    const rest = chosen.filter((one) => one !== own && ids.includes(one));
    setChosen(rest.length < chosen.length ? rest : [...rest, own].slice(-MOST_COMPARED));
  };
  return (
    <>
      <div className="kits-field">
        {along && upward && (
          <figure>
            {others.length > 1 && (
              <Form.Select
                size="sm"
                aria-label="Criterion that goes up"
                value={upward.id}
                onChange={(event) => setUp(event.target.value as CriterionId)}
              >
                {others.map((one) => (
                  <option key={one.id} value={one.id}>
                    Price and {one.label.toLowerCase()}
                  </option>
                ))}
              </Form.Select>
            )}
            <Slope
              {...{ kits, along, criteria, limits, currency }}
              also={search.also}
              up={upward}
              chosen={places}
              onChoose={choose}
              onLimits={setLimits}
            />
            <figcaption className="soft">
              Each stone is a kit; a larger stone has a larger tightest margin, a cracked one a
              tight limit. A kit beyond a limit sinks into the ground; drag the lines to set one.
              {search.also.length > 0 && " Grit: kits that were tried and are beaten."}
            </figcaption>
          </figure>
        )}
        <LimitSliders {...{ kits, criteria, limits, currency }} onLimits={setLimits} />
      </div>
      <KitTable {...{ view, kits, criteria, limits, currency }} chosen={places} onChoose={choose} />
      {kits.length > 1 && (
        <p className="soft">
          Likely unbeaten: in so many of 100 likely cases none of these kits beats it.
        </p>
      )}
      {places.length >= 2 && <Differences kits={kits} places={places} />}
    </>
  );
}

/** A kit keeps its name while others come before it. */
function idOf(kit: SuggestedKit): string {
  return kit.parts.map((part) => `${part.part}x${part.quantity}`).join(" ");
}

interface SlidersProps {
  kits: SuggestedKit[];
  criteria: CriterionView[];
  limits: Limits;
  currency: string;
  onLimits: (limits: Limits) => void;
}

const STEPS = 100;

/** One limit a criterion: drawn with the pointer, moved by arrow keys. */
function LimitSliders({ kits, criteria, limits, currency, onLimits }: SlidersProps) {
  const id = useId();
  return (
    <fieldset className="kits-limits">
      <legend>Limits</legend>
      {criteria.map((one) => {
        const [least, most] = extentOf(kits, one.id);
        const value = limits[one.id] ?? (one.more ? least : most);
        const text = criterionText(one, value, currency);
        return (
          <div key={one.id}>
            <label htmlFor={`${id}-${one.id}`}>
              {one.label} {one.more ? "at least" : "at most"}
            </label>
            <input
              id={`${id}-${one.id}`}
              type="range"
              min={least}
              max={most}
              step={(most - least) / STEPS || 1}
              value={value}
              disabled={least === most}
              aria-valuetext={text}
              onChange={(event) => onLimits({ ...limits, [one.id]: Number(event.target.value) })}
            />
            <LimitField
              {...{ one, text }}
              onLimit={(to) => onLimits({ ...limits, [one.id]: to })}
            />
          </div>
        );
      })}
      <Button
        variant=""
        size="sm"
        disabled={Object.keys(limits).length === 0}
        onClick={() => onLimits({})}
      >
        No limits
      </Button>
    </fieldset>
  );
}

interface LimitFieldProps {
  one: CriterionView;
  text: string;
  onLimit: (value: number) => void;
}

/** The limit as it is told, and typed: what is no number stays as it was. */
function LimitField({ one, text, onLimit }: LimitFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const take = () => {
    const read = typed === null ? Number.NaN : limitFrom(one, typed);
    if (!Number.isNaN(read)) onLimit(read);
    setTyped(null);
  };
  return (
    <Form.Control
      size="sm"
      className="tabular"
      aria-label={`Limit of ${one.label.toLowerCase()}`}
      inputMode="decimal"
      value={typed ?? text}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") setTyped(null);
      }}
    />
  );
}

interface TableProps extends Omit<SlidersProps, "onLimits"> {
  view: PlanView;
  chosen: number[];
  onChoose: (place: number) => void;
}

function KitTable({ view, kits, criteria, limits, currency, chosen, onChoose }: TableProps) {
  const first = criteria[0]?.id ?? "price";
  const [sorting, setSorting] = useState<Sorting>({ by: first, down: false });
  const by = criteria.some((one) => one.id === sorting.by) ? sorting : { by: first, down: false };
  return (
    <div className="side-scroll" tabIndex={0} role="region" aria-label="Kits in a table">
      <table className="kits-table">
        <thead>
          <tr>
            <th scope="col">Compare</th>
            {criteria.map((one) => (
              <th
                key={one.id}
                scope="col"
                aria-sort={one.id === by.by ? (by.down ? "descending" : "ascending") : undefined}
              >
                <Button
                  variant="link"
                  onClick={() =>
                    setSorting({ by: one.id, down: one.id === by.by ? !by.down : one.more })
                  }
                >
                  {one.label}
                  {one.id === by.by && (by.down ? " ↓" : " ↑")}
                </Button>
              </th>
            ))}
            {kits.length > 1 && <th scope="col">Likely unbeaten</th>}
            <th scope="col">Parts</th>
            <th scope="col">
              <span className="visually-hidden">Use</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {inOrder(kits, by).map(([kit, place]) => (
            <tr key={place} className={isWithin(kit, criteria, limits) ? "" : "under"}>
              <td>
                <Form.Check
                  aria-label={`Compare kit ${place + 1}`}
                  checked={chosen.includes(place)}
                  onChange={() => onChoose(place)}
                />
              </td>
              {criteria.map((one) => (
                <td key={one.id} className="tabular">
                  {criterionText(one, valueOf(kit, one.id), currency)}
                </td>
              ))}
              {kits.length > 1 && <td className="tabular">{Math.floor(kit.stays * 100)} of 100</td>}
              <td>
                {kit.tight.length > 0 && <Cobble severity="tight" />}{" "}
                {kit.parts
                  .map((part) => (part.quantity > 1 ? `${part.quantity} ` : "") + part.name)
                  .join(", ")}
                {kit.tight.map((sentence) => (
                  <span key={sentence.text} className="kits-tight">
                    {textOf(sentence)}
                  </span>
                ))}
              </td>
              <td>
                <Variant view={view} kit={kit} currency={currency} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Make a plan of a kit; taken back, it goes to the bin. */
function Variant({ view, kit, currency }: { view: PlanView; kit: SuggestedKit; currency: string }) {
  const queries = useQueryClient();
  const refresh = () => queries.invalidateQueries({ queryKey: plansQuery.queryKey });
  const price = kit.figures.find((entry) => entry.criterion === "price");
  const name = price
    ? `${view.plan.name}, ${criterionText(PRICE, price.value, currency)}`
    : `${view.plan.name}, another kit`;
  const create = useMutation({
    mutationFn: async () =>
      dataOf(await client.POST("/api/plans", { body: { name, plan: kit.plan } })),
    onSuccess: refresh,
  });
  const undo = useMutation({
    mutationFn: async (made: PlanView) =>
      dataOf(
        await client.DELETE("/api/plans/{plan_id}", {
          params: { path: { plan_id: made.id }, header: ifMatch(made.version) },
        }),
      ),
    onSuccess: () => {
      create.reset();
      return refresh();
    },
  });
  const failed = create.error ?? undo.error;
  if (create.data)
    return (
      <span role="status">
        <Link to={`/plans/${create.data.id}`}>Open variant</Link>{" "}
        <Button variant="link" onClick={() => undo.mutate(create.data)}>
          Undo
        </Button>
        {failed && <span className="field-wrong">{failed.message}</span>}
      </span>
    );
  return (
    <>
      <Button variant="" size="sm" disabled={create.isPending} onClick={() => create.mutate()}>
        Create variant
      </Button>
      {failed && <span className="field-wrong">{failed.message}</span>}
    </>
  );
}

const PRICE = { id: "price", unit: "" } as const;

/** The roles in which the chosen kits differ. */
function Differences({ kits, places }: { kits: SuggestedKit[]; places: number[] }) {
  const shown = places.flatMap((place) => kits[place] ?? []);
  return (
    <section aria-label="Differences">
      <h2 className="kits-head">What differs</h2>
      <table className="side-table kits-differ">
        <thead>
          <tr>
            <th />
            {places.map((place) => (
              <th key={place} scope="col">
                Kit {place + 1}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {differences(shown).map((row) => (
            <tr key={row.role}>
              <th scope="row">{roleLabel(row.role)}</th>
              {row.cells.map((cell, column) => (
                <td key={column}>{cell || "none"}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
