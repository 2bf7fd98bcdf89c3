import type { UseQueryResult } from "@tanstack/react-query";

import type { FirstKit, FirstKitRequest } from "../api/types";
import { Cobble } from "../ui/Cobble";
import { money, price, severityWord } from "../ui/numbers";
import { roleLabel } from "../workbench/roles";
import { needTally } from "./needs";

interface Props {
  request: FirstKitRequest | null;
  /** What keeps a kit from being looked for, in a sentence. */
  missing: string;
  found: UseQueryResult<FirstKit>;
}

/** The cheapest kit that does it, and why each part was taken. */
export function FirstKitPane({ request, missing, found }: Props) {
  return (
    <section className="first-kit" aria-label="First kit" aria-busy={found.isFetching}>
      <h2>
        A first kit
        {found.data && request && (
          <span className="tabular">
            {money(found.data.report.cost.total, found.data.report.cost.currency)}
          </span>
        )}
      </h2>
      {missing && <p className="soft">{missing}</p>}
      {found.isError && !missing && <p className="tone-stops">{found.error.message}</p>}
      {!found.data && found.isFetching && <p className="soft">Trying the cupboard…</p>}
      {found.data && !missing && <Found kit={found.data} stale={found.isFetching} />}
    </section>
  );
}

/** Of what is tight so many are told before the kit is begun. */
const MOST_TOLD = 3;

function Found({ kit, stale }: { kit: FirstKit; stale: boolean }) {
  const { report } = kit;
  const tight = report.findings.filter((finding) => finding.severity === "tight");
  const why = new Map(kit.reasons.map((reason) => [reason.line, reason.text]));
  return (
    <div className={stale ? "stale" : ""}>
      <p className="first-verdict">
        <Cobble severity={report.severity} size={18} silent />
        <span>
          {kit.failing.length === 0
            ? `${severityWord(report.severity)}. ${report.needs.length > 0 ? `${needTally(report.needs)}. ` : ""}Nothing stops it.`
            : "No kit of the cupboard does all of it. The nearest one fails here:"}
        </span>
      </p>
      {kit.failing.length === 0 && tight.length > 0 && (
        <ul className="failing">
          {tight.slice(0, MOST_TOLD).map((finding) => (
            <li key={finding.id}>{finding.sentence}</li>
          ))}
          {tight.length > MOST_TOLD && <li>{tight.length - MOST_TOLD} more in the plan.</li>}
        </ul>
      )}
      {kit.failing.length > 0 && (
        <ul className="failing">
          {kit.failing.map((sentence) => (
            <li key={sentence} className="tone-stops">
              {sentence}
            </li>
          ))}
        </ul>
      )}
      <table className="first-kit-table">
        <tbody>
          {report.lines.map((line, index) => (
            <tr key={line.id}>
              <th scope="row" className="soft">
                {roleLabel(line.role)}
              </th>
              <td>
                {line.quantity > 1 && `${line.quantity} × `}
                {line.name}
                {line.owned && <span className="own-tag">own</span>}
                <div className="soft">{why.get(line.id)}</div>
              </td>
              <td className="num tabular">
                {price(report.cost.lines[index]?.to_pay, report.cost.currency)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
