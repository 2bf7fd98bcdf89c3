import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { useNavigate, useSearchParams } from "react-router";

import { ProblemError } from "../api/client";
import { partsQuery, sheetQuery } from "../api/queries";
import type { PartSheet, SheetFigure } from "../api/types";
import { announce } from "../ui/announce";
import { FigureInput } from "../ui/FigureInput";
import { focusSoon } from "../ui/focusSoon";
import { textOf as textOfFigure } from "../ui/text";
import { LeaveGuard } from "../ui/LeaveGuard";
import { Meanwhile } from "../ui/Meanwhile";
import { money, stated } from "../ui/numbers";
import { shownUnit, toField } from "../ui/displayUnits";
import { Failure, Loading } from "../ui/States";
import { useTyped } from "../ui/typed";
import {
  INPUT_BASES,
  basisWords,
  byPath,
  editOf,
  fallback,
  flat,
  groupsOf,
  rowsOf,
  textOf,
  unflat,
  type InputBasis,
  type SheetText,
} from "./sheetForm";
import { UseInPlan } from "./UseInPlan";
import { usePartChanges } from "./usePartChanges";

type NameField = "maker" | "model" | "summary" | "price" | "currency";

interface Props {
  id: string;
  onBin: (name: string) => void;
}

/** The sheet of one part: read for what came with the catalogue, a form for one's own. */
export function PartPane({ id, onBin }: Props) {
  const sheet = useQuery(sheetQuery(id));
  if (sheet.isPending) return <Loading what="the part" />;
  if (!sheet.data) return <Failure error={sheet.error} retry={() => void sheet.refetch()} />;
  return sheet.data.origin === "custom" ? (
    <CustomPart key={sheet.data.id} sheet={sheet.data} onBin={onBin} />
  ) : (
    <PackPart sheet={sheet.data} />
  );
}

function PackPart({ sheet }: { sheet: PartSheet }) {
  const { copy } = usePartChanges();
  const navigate = useNavigate();
  const [params] = useSearchParams();
  const makeCustom = async () => {
    const mine = await copy.mutateAsync(sheet.id);
    await navigate({ pathname: `/parts/${mine.id}`, search: params.toString() });
  };
  return (
    <>
      <header className="part-head">
        <div>
          <h2>{sheet.model}</h2>
          <p className="soft">
            {sheet.summary && `${sheet.summary}. `}Maker: {sheet.maker}.{" "}
            {sheet.price === null ? "No price." : money(sheet.price, sheet.currency)}
          </p>
        </div>
        <div className="part-actions">
          <UseInPlan part={sheet} />
          <Button variant="" disabled={copy.isPending} onClick={() => void makeCustom()}>
            Copy and change
          </Button>
        </div>
      </header>
      {copy.isError && (
        <p role="alert" className="tone-problem">
          {copy.error.message}
        </p>
      )}
      <Cautions sheet={sheet} />
      <FigureTable sheet={sheet} row={(entry) => <ReadRow key={entry.path} entry={entry} />} />
    </>
  );
}

/** The first field that was refused. */
const REFUSED = ".part-pane [aria-invalid=true]";

function CustomPart({ sheet, onBin }: { sheet: PartSheet; onBin: (name: string) => void }) {
  const id = useId();
  const { save, moveToBin } = usePartChanges();
  const typed = useTyped(flat(textOf(sheet)), sheet.revision);
  const text = unflat(typed.text);
  const setText = (next: SheetText) => typed.setText(flat(next));
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const [general, setGeneral] = useState<string[]>([]);
  const put = (field: NameField) => (event: { target: { value: string } }) =>
    setText({ ...text, [field]: event.target.value });
  const putFigure = (path: string, change: Partial<{ text: string; basis: InputBasis }>) =>
    setText({
      ...text,
      figures: {
        ...text.figures,
        [path]: { text: "", basis: "datasheet", ...text.figures[path], ...change },
      },
    });
  const store = async () => {
    setWrong({});
    setGeneral([]);
    const read = editOf(sheet, text);
    if ("wrong" in read) {
      setWrong(read.wrong);
      setGeneral([`Not saved. ${count(Object.keys(read.wrong).length)} to correct.`]);
      focusSoon(REFUSED);
      return;
    }
    try {
      const saved = await save.mutateAsync({ sheet, edit: read.edit });
      typed.settle(flat(textOf(saved)), saved.revision);
      const doubts = saved.figures.filter((entry) => entry.doubt !== null).length;
      announce(doubts > 0 ? `Saved. ${doubts} to look at once more.` : "Saved.");
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      const { fields, rest } = byPath(error.problem.problems, sheet);
      setWrong(fields);
      focusSoon(REFUSED);
      const hints = Object.keys(fields).length;
      setGeneral([
        ...(hints > 0 ? [`Not saved. ${count(hints)} to correct.`] : []),
        ...rest,
        ...(hints === 0 && rest.length === 0 ? [error.message] : []),
      ]);
    }
  };
  const dirty = typed.dirty;
  const parts = useQuery(partsQuery).data ?? [];
  const called = (name: string) => name.trim().toLowerCase();
  const isCalledAlike = parts.some(
    (part) => part.id !== sheet.id && called(part.model) === called(text.model),
  );
  const away = () => moveToBin.mutate(sheet, { onSuccess: () => onBin(sheet.model) });
  const field = (name: NameField, label: string) => (
    <div className="own-field">
      <Form.Label htmlFor={`${id}-${name}`}>{label}</Form.Label>
      <div className="with-unit">
        <Form.Control
          id={`${id}-${name}`}
          size="sm"
          value={text[name]}
          isInvalid={wrong[name] !== undefined}
          aria-invalid={wrong[name] !== undefined || undefined}
          aria-describedby={wrong[name] ? `${id}-${name}-wrong` : undefined}
          onChange={put(name)}
          placeholder={name === "price" ? "not known" : ""}
          inputMode={name === "price" ? "decimal" : "text"}
        />
      </div>
      {wrong[name] && (
        <div className="field-wrong" id={`${id}-${name}-wrong`}>
          {wrong[name]}
        </div>
      )}
      {name === "model" && isCalledAlike && (
        <div className="tone-tight" role="status">
          Another part is called this too. Is that right?
        </div>
      )}
    </div>
  );
  return (
    <Form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void store();
      }}
    >
      <header className="part-head">
        <div>
          <h2>{sheet.model}</h2>
          <p className="soft">
            Custom part, revision {sheet.revision}. Empty fields use typical values.
          </p>
        </div>
        <div className="part-actions">
          {!dirty && <UseInPlan part={sheet} />}
          <Button
            variant=""
            disabled={dirty || moveToBin.isPending}
            title={dirty ? "Save or discard your changes first" : undefined}
            onClick={away}
          >
            Move to bin
          </Button>
          <Button variant="" disabled={!dirty} onClick={() => setText(textOf(sheet))}>
            Discard
          </Button>
          {save.isSuccess && !dirty && <span className="soft">Saved</span>}
          <Button variant="primary" type="submit" disabled={save.isPending || !dirty}>
            {save.isPending ? "Saving…" : "Save"}
          </Button>
        </div>
      </header>
      <Meanwhile typed={typed} rows={rowsOf(sheet)} />
      {moveToBin.isError && (
        <p role="alert" className="tone-problem">
          {moveToBin.error.message}
        </p>
      )}
      <LeaveGuard dirty={dirty} what={sheet.model} />
      {general.map((sentence) => (
        <p key={sentence} role="alert" className="tone-problem">
          {sentence}
        </p>
      ))}
      <div className="own-names">
        {field("model", "Name")}
        {field("maker", "Maker")}
        {field("summary", "Description")}
        {field("price", "Price")}
        {field("currency", "Currency")}
      </div>
      <Cautions sheet={sheet} />
      <FigureTable
        sheet={sheet}
        askForMore
        row={(entry) => (
          <EditRow
            key={entry.path}
            entry={entry}
            text={text.figures[entry.path]?.text ?? ""}
            basis={text.figures[entry.path]?.basis ?? "datasheet"}
            wrong={wrong[entry.path]}
            onChange={(change) => putFigure(entry.path, change)}
          />
        )}
      />
    </Form>
  );
}

function count(fields: number): string {
  return fields === 1 ? "One field is" : `${fields} fields are`;
}

function Cautions({ sheet }: { sheet: PartSheet }) {
  return sheet.cautions.map((caution) => (
    <p key={caution} className="part-caution">
      {caution}
    </p>
  ));
}

interface TableProps {
  sheet: PartSheet;
  row: (entry: SheetFigure) => React.ReactNode;
  /** Whether unknown values can be entered; otherwise they are not shown. */
  askForMore?: boolean;
}

/** What one reads off the part first; the rest folded, and last what nobody states. */
function FigureTable({ sheet, row, askForMore = false }: TableProps) {
  const onLabel = sheet.figures.filter(
    (entry) => entry.on_label && (askForMore || entry.nominal !== null),
  );
  const known = sheet.figures.filter((entry) => entry.nominal !== null && !entry.on_label);
  const open = sheet.figures.filter((entry) => entry.nominal === null && !entry.on_label);
  return (
    <>
      {onLabel.length > 0 && (
        <section className="sheet-label" aria-label="Values on the label">
          <h3>Values on the label</h3>
          <table>
            <tbody>{onLabel.map(row)}</tbody>
          </table>
        </section>
      )}
      {known.length > 0 && (
        <details className="sheet-more" open={onLabel.length === 0}>
          <summary>{onLabel.length > 0 ? `All known values (${known.length})` : "Values"}</summary>
          <Groups figures={known} row={row} />
        </details>
      )}
      {askForMore && open.length > 0 && (
        <details className="sheet-more">
          <summary>Optional values not yet known ({open.length})</summary>
          <Groups figures={open} row={row} />
        </details>
      )}
    </>
  );
}

function Groups({ figures, row }: { figures: SheetFigure[]; row: TableProps["row"] }) {
  return (
    <div className="sheet">
      {groupsOf(figures).map(([group, entries]) => (
        <section key={group} aria-label={group}>
          <h3>{group}</h3>
          <table>
            <tbody>{entries.map(row)}</tbody>
          </table>
        </section>
      ))}
    </div>
  );
}

function ReadRow({ entry }: { entry: SheetFigure }) {
  return (
    <tr>
      <th scope="row">{entry.label}</th>
      <td className="num tabular">{asShown(entry)}</td>
      <td className="rests-on soft">{basisWords(entry)}</td>
      <td className="band soft tabular">{band(entry)}</td>
    </tr>
  );
}

function asShown(entry: SheetFigure): string {
  return entry.nominal === null ? "" : stated(entry.nominal, entry.unit);
}

function band(entry: SheetFigure): string {
  if (entry.low === null || entry.high === null || entry.low === entry.high) return "";
  const as = (value: number) => toField(short(value), entry.unit);
  return `${as(entry.low)} to ${as(entry.high)}`;
}

function short(value: number): string {
  return String(Number(value.toPrecision(3)));
}

interface EditProps {
  entry: SheetFigure;
  text: string;
  basis: InputBasis;
  wrong: string | undefined;
  onChange: (change: Partial<{ text: string; basis: InputBasis }>) => void;
}

function EditRow({ entry, text, basis, wrong, onChange }: EditProps) {
  const id = useId();
  return (
    <tr className={wrong ? "wrong" : ""}>
      <th scope="row">
        <label htmlFor={id}>{entry.label}</label>
        {wrong && (
          <div className="field-wrong" id={`${id}-wrong`}>
            {wrong}
          </div>
        )}
        {!wrong && entry.doubt && (
          <div className="tone-tight" id={`${id}-doubt`}>
            {textOfFigure(entry.doubt)} Is that right?
          </div>
        )}
      </th>
      <td className="typed">
        <div className="with-unit">
          <FigureInput
            id={id}
            size="sm"
            className="num tabular"
            unit={entry.unit}
            value={text}
            placeholder={fallback(entry)}
            isInvalid={wrong !== undefined}
            aria-describedby={wrong ? `${id}-wrong` : entry.doubt ? `${id}-doubt` : undefined}
            onChange={(next) => onChange({ text: next })}
          />
          <span className="unit">{shownUnit(entry.unit)}</span>
        </div>
      </td>
      <td className="rests-on">
        {text.trim() === "" ? (
          <span className="soft">{entry.class_nominal === null ? "" : "typical value"}</span>
        ) : (
          entry.kind === "reading" && (
            <Form.Select
              size="sm"
              aria-label={`Basis: ${entry.label}`}
              value={basis}
              onChange={(event) => onChange({ basis: event.target.value as InputBasis })}
            >
              {INPUT_BASES.map(([value, label]) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </Form.Select>
          )
        )}
      </td>
    </tr>
  );
}
