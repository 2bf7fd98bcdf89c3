import Button from "react-bootstrap/Button";

import { money, price } from "../../../ui/numbers";
import { useBench } from "../../bench";
import { roleLabel } from "../../roles";
import { MoneyDrawing } from "./MoneyDrawing";

/** The bill, line by line, against the budget. */
export function CostTable() {
  const { report, openDetails } = useBench();
  const { cost } = report;
  return (
    <>
      <div className="aspect-bar">
        {cost.budget === null ? (
          <span className="soft">No budget is set, so nothing is judged.</span>
        ) : (
          <span>
            Budget <strong className="tabular">{money(cost.budget, cost.currency)}</strong>
          </span>
        )}
        <Button variant="" size="sm" onClick={openDetails}>
          {cost.budget === null ? "Set a budget" : "Change it"}
        </Button>
      </div>
      <MoneyDrawing />
      <details className="drawing-table" open={cost.copies > 1 || undefined}>
        <summary>As a table, with what things are worth</summary>
        <table className="as-table">
          <thead>
            <tr>
              <th scope="col">Role</th>
              <th scope="col">Part</th>
              <th scope="col" className="num">
                Pieces
              </th>
              <th scope="col" className="num">
                Worth
              </th>
              <th scope="col" className="num">
                {cost.copies > 1 ? `To pay for ${cost.copies}` : "To pay"}
              </th>
            </tr>
          </thead>
          <tbody>
            {report.lines.map((line, index) => (
              <tr key={line.id}>
                <td className="soft">{roleLabel(line.role)}</td>
                <td>
                  {line.name}
                  {line.owned && <span className="own-tag">own</span>}
                </td>
                <td className="num">{line.quantity}</td>
                <td className="num">{price(cost.lines[index]?.value, cost.currency)}</td>
                <td className="num">{price(cost.lines[index]?.to_pay, cost.currency)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <th scope="row" colSpan={4}>
                {cost.copies > 1 ? `To buy for ${cost.copies} copies` : "To buy"}
                {cost.unknown.length > 0 && ", as far as prices are known"}
              </th>
              <th className="num">{money(cost.total, cost.currency)}</th>
            </tr>
            {Number(cost.owned_value) > 0 && (
              <tr>
                <td colSpan={4}>Worth of what you own already</td>
                <td className="num">{money(cost.owned_value, cost.currency)}</td>
              </tr>
            )}
            {cost.copies > 1 && (
              <tr>
                <td colSpan={4}>Each one more</td>
                <td className="num">{money(cost.further, cost.currency)}</td>
              </tr>
            )}
          </tfoot>
        </table>
      </details>
    </>
  );
}
