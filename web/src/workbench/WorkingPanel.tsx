import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Offcanvas from "react-bootstrap/Offcanvas";

import { workingQuery } from "../api/queries";
import type { Term, Working } from "../api/types";
import { percent, precise } from "../ui/numbers";
import { Failure, Loading } from "../ui/States";
import { shownUnit } from "../ui/displayUnits";
import { useBench } from "./bench";
import { BASES } from "../api/labels";
import { textOf } from "../ui/text";

/** A basis in words. */
function basisWord(basis: string): string {
  return basis in BASES ? BASES[basis as keyof typeof BASES] : basis;
}

interface Props {
  figure: string;
  onClose: () => void;
}

/** The arithmetic behind a figure; an input that is itself worked out can be followed. */
export function WorkingPanel({ figure, onClose }: Props) {
  const { view, whatIf } = useBench();
  const [trail, setTrail] = useState([figure]);
  const current = trail[trail.length - 1] ?? figure;
  const working = useQuery(workingQuery(view.id, view.version, whatIf, current));
  const id = useId();
  return (
    <Offcanvas
      show
      onHide={onClose}
      placement="end"
      className="working-panel"
      aria-labelledby={`${id}-title`}
    >
      <Offcanvas.Header closeButton>
        <Offcanvas.Title id={`${id}-title`} as="h2" className="fs-6">
          Working
        </Offcanvas.Title>
        {trail.length > 1 && (
          <Button
            variant=""
            size="sm"
            className="ms-3"
            onClick={() => setTrail(trail.slice(0, -1))}
          >
            Back
          </Button>
        )}
      </Offcanvas.Header>
      <Offcanvas.Body>
        {working.isPending && <Loading what="the working" />}
        {working.isError && <Failure error={working.error} />}
        {shownUnit("°C") + shownUnit("mm") !== "°Cmm" && (
          <p className="soft">Workings are in °C and mm.</p>
        )}
        {working.data && (
          <WorkingSheet working={working.data} onFollow={(next) => setTrail([...trail, next])} />
        )}
      </Offcanvas.Body>
    </Offcanvas>
  );
}

interface SheetProps {
  working: Working;
  onFollow: (figure: string) => void;
}

function WorkingSheet({ working, onFollow }: SheetProps) {
  return (
    <>
      <h3 className="working-label">{working.label}</h3>
      <p className="soft">
        {working.words}
        {working.state && `, state “${working.state.replace(" (mean)", "")}”`}
      </p>
      <div className="working-sum tabular">
        <Formula text={working.expression} />
        <div>
          = <strong>{precise(working.result, working.unit)}</strong>
        </div>
      </div>
      <table className="as-table working-inputs">
        <thead>
          <tr>
            <th scope="col">Symbol</th>
            <th scope="col">Quantity</th>
            <th scope="col" className="num">
              Value
            </th>
          </tr>
        </thead>
        <tbody>
          {working.inputs.map((term) => (
            <Input key={term.symbol} term={term} onFollow={onFollow} />
          ))}
        </tbody>
      </table>
      {working.doubts.length > 0 && <Doubts working={working} />}
      <p className="soft mt-3">Source: {working.source}</p>
    </>
  );
}

function Input({ term, onFollow }: { term: Term; onFollow: (figure: string) => void }) {
  const { figure } = term;
  return (
    <tr>
      <td>
        <Formula text={term.symbol} />
      </td>
      <td>
        {figure === null ? (
          term.label
        ) : (
          <Button variant="link" onClick={() => onFollow(figure)}>
            {term.label}
          </Button>
        )}
        <div className="soft">
          <span className={`basis basis-${term.basis}`}>{basisWord(term.basis)}</span>
          {term.basis !== "calculated" && term.basis !== "plan" && ` ${term.origin}`}
        </div>
      </td>
      <td className="num">{precise(term.value, term.unit)}</td>
    </tr>
  );
}

function Doubts({ working }: { working: Working }) {
  return (
    <>
      <h4 className="working-label mt-3">Why the likely range is wide</h4>
      <ul className="doubts">
        {working.doubts.map((doubt) => (
          <li key={doubt.label}>
            <span
              className="doubt-bar"
              style={{ width: `${Math.round(doubt.share * 100)}px` }}
              aria-hidden
            />
            <span className="tabular">{percent(doubt.share)}</span> {doubt.label}{" "}
            <span className="soft">({basisWord(doubt.basis)})</span>
          </li>
        ))}
      </ul>
      <p>{textOf(working.measure)}</p>
    </>
  );
}

/** A formula as people write it: a product dot, a true minus, indices set low. */
function Formula({ text }: { text: string }) {
  const written = text
    .replace(/(\w+) \* \1(?!\w)/g, "$1²")
    .replaceAll("sqrt(", "√(")
    .replaceAll(" * ", " · ")
    .replaceAll(" - ", " − ");
  return (
    <code>
      {written
        .split(/(_[A-Za-z0-9]+)/)
        .map((item, index) =>
          item.startsWith("_") ? <sub key={index}>{item.slice(1)}</sub> : item,
        )}
    </code>
  );
}
