import type { UseQueryResult } from "@tanstack/react-query";
import type { ReactNode } from "react";
import Button from "react-bootstrap/Button";

import type { CheaperKit, FirstKit, FirstKitRequest } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { money, price, severityWord } from "../ui/numbers";
import { roleLabel } from "../ui/roles";
import { requirementTally } from "../requirements/requirements";
import { textOf } from "../ui/text";
import { useSettled } from "./useSettled";

interface Props {
  request: FirstKitRequest | null;
  /** What keeps a kit from being looked for, in a sentence. */
  missing: string;
  found: UseQueryResult<FirstKit>;
  /** Whether the cheaper, tight kit is looked at, where there is one. */
  cheaper: boolean;
  setCheaper: (cheaper: boolean) => void;
  /** Give up the search that is under way. */
  onStop: () => void;
}

/** What takes longer is told, with a way to stop it. */
const SLOW_MS = 500;

/** The cheapest kit that does it, and why each part was taken. */
export function FirstKitPane({ request, missing, found, cheaper, setCheaper, onStop }: Props) {
  const shown = found.data && shownKit(found.data, cheaper);
  const slow = useSettled(found.isFetching, SLOW_MS);
  const known = found.data && !found.isPlaceholderData;
  const stopped = request && !missing && !known && !found.isFetching && !found.isError;
  return (
    <section className="first-kit" aria-label="First kit" aria-busy={found.isFetching}>
      <h2>
        First kit
        {shown && request && (
          <span className="tabular">
            {money(shown.report.cost.total, shown.report.cost.currency)}
          </span>
        )}
      </h2>
      {missing && <p className="soft">{missing}</p>}
      {found.isError && !missing && <p className="tone-problem">{found.error.message}</p>}
      {slow && found.isFetching && (
        <p className="soft" role="status">
          Checking kits, the lowest price first…{" "}
          <Button variant="link" onClick={onStop}>
            Stop
          </Button>
        </p>
      )}
      {stopped && (
        <p className="soft" role="status">
          Stopped.{" "}
          <Button variant="link" onClick={() => void found.refetch()}>
            Search again
          </Button>
        </p>
      )}
      {found.data && shown && !missing && (
        <Found kit={{ ...found.data, ...shown }} stale={found.isFetching}>
          {found.data.cheaper && (
            <Other
              cheaper={found.data.cheaper}
              currency={shown.report.cost.currency}
              shown={cheaper}
              show={setCheaper}
            />
          )}
        </Found>
      )}
    </section>
  );
}

/** Of what is tight so many are told before the kit is begun. */
const MOST_TOLD = 3;

/** What is looked at: the first kit, or the cheaper one, which is tight and which nothing stops. */
export function shownKit(kit: FirstKit, cheaper: boolean): Shown {
  return cheaper && kit.cheaper ? { ...kit.cheaper, failing: [] } : kit;
}

/** Whether there is a kit at all, be it one that fails somewhere. */
export function hasKit(kit: Pick<FirstKit, "report">): boolean {
  return kit.report.lines.some((line) => line.role === "board");
}

type Shown = Pick<FirstKit, "plan" | "report" | "failing">;

interface OtherProps {
  cheaper: CheaperKit;
  currency: string;
  shown: boolean;
  show: (cheaper: boolean) => void;
}

/** The other choice: what the tight kit saves and what that means, or the way back. */
function Other({ cheaper, currency, shown, show }: OtherProps) {
  const less = money(cheaper.less, currency);
  return (
    <p className="other-kit">
      {shown
        ? `The kit without tight limits costs ${less} more. `
        : `A kit for ${less} less is tight: `}
      {!shown && `${cheaper.sentences.slice(0, MOST_TOLD).map(textOf).join(" ")} `}
      <Button variant="link" onClick={() => show(!shown)}>
        {shown ? "Show the kit without tight limits" : "Show the cheaper kit"}
      </Button>
    </p>
  );
}

interface FoundProps {
  kit: FirstKit;
  stale: boolean;
  children: ReactNode;
}

function Found({ kit, stale, children }: FoundProps) {
  const { report } = kit;
  const tight = report.findings.filter((finding) => finding.severity === "tight");
  const severity = report.severity === "note" ? "ok" : report.severity;
  const noKit = !hasKit(kit);
  const why = new Map(kit.reasons.map((reason) => [reason.line, reason.text]));
  return (
    <div className={stale ? "stale" : ""}>
      <p className="first-verdict">
        <Cobble severity={severity} size={18} silent />
        <span>
          {kit.failing.length === 0
            ? `${severityWord(severity)}. ${report.purpose.length > 0 ? `${requirementTally(report.purpose)}. ` : ""}No problems found.`
            : noKit
              ? "No kit of these parts comes close:"
              : "No kit meets every requirement. The nearest kit fails here:"}
          {kit.failing.length === 0 &&
            kit.proven &&
            severity === "ok" &&
            " It is the cheapest kit without tight limits."}
        </span>
      </p>
      {kit.failing.length === 0 && tight.length > 0 && (
        <ul className="failing">
          {tight.slice(0, MOST_TOLD).map((finding) => (
            <li key={finding.id}>{textOf(finding.sentence)}</li>
          ))}
          {tight.length > MOST_TOLD && (
            <li>And {tight.length - MOST_TOLD} more, shown in the plan.</li>
          )}
        </ul>
      )}
      {kit.failing.length > 0 && (
        <ul className="failing">
          {kit.failing.map((sentence) => (
            <li key={sentence.text} className="tone-problem">
              {" "}
              {textOf(sentence)}
            </li>
          ))}
        </ul>
      )}
      {children}
      {!noKit && (
        <table className="first-kit-table">
          <tbody>
            {report.lines.map((line, index) => (
              <tr key={line.id}>
                <th scope="row" className="soft">
                  {roleLabel(line.role)}
                </th>
                <td>
                  {line.quantity > 1 && `${line.quantity} × `}
                  {line.short_name}
                  {line.owned && <span className="own-tag">owned</span>}
                  <div className="soft">{textOf(why.get(line.id) ?? "")}</div>
                </td>
                <td className="num tabular">
                  {price(report.cost.lines[index]?.to_pay, report.cost.currency)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
