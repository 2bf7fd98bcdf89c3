import Button from "react-bootstrap/Button";

import { money, price } from "../../../ui/numbers";
import { useBench } from "../../bench";
import { roleLabel } from "../../../ui/roles";
import { MoneyDrawing } from "./MoneyDrawing";

/** The bill, line by line, against the budget. */
export function CostTable() {
  const { report, openDetails } = useBench();
  const { cost } = report;
  return (
    <>
      <div className="aspect-bar">
        {cost.budget === null ? (
          <span className="soft">No budget yet. Set one to check the cost.</span>
        ) : (
          <span>
            Budget <strong className="tabular">{money(cost.budget, cost.currency)}</strong>
          </span>
        )}
        <Button variant="" size="sm" onClick={openDetails}>
          {cost.budget === null ? "Set a budget" : "Change"}
        </Button>
      </div>
      <MoneyDrawing />
      <details className="drawing-table" open={cost.copies > 1 || undefined}>
        <summary>Table with values of owned parts</summary>
        <table className="as-table">
          <thead>
            <tr>
              <th scope="col">Role</th>
              <th scope="col">Part</th>
              <th scope="col" className="num">
                Quantity
              </th>
              <th scope="col" className="num">
                Value
              </th>
              <th scope="col" className="num">
                {cost.copies > 1 ? `To pay for ${cost.copies} copies` : "To pay"}
              </th>
            </tr>
          </thead>
          <tbody>
            {report.lines.map((line, index) => (
              <tr key={line.id}>
                <td className="soft">{roleLabel(line.role)}</td>
                <td>
                  {line.short_name}
                  {line.owned && <span className="own-tag">owned</span>}
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
                {cost.unknown.length > 0 && ", without parts that have no price"}
              </th>
              <th className="num">{money(cost.total, cost.currency)}</th>
            </tr>
            {Number(cost.owned_value) > 0 && (
              <tr>
                <td colSpan={4}>Value of owned parts</td>
                <td className="num">{money(cost.owned_value, cost.currency)}</td>
              </tr>
            )}
            {cost.copies > 1 && (
              <tr>
                <td colSpan={4}>Each further copy</td>
                <td className="num">{money(cost.further, cost.currency)}</td>
              </tr>
            )}
          </tfoot>
        </table>
      </details>
    </>
  );
}
