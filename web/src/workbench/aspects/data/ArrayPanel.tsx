import Button from "react-bootstrap/Button";

import type { LayoutReport } from "../../../api/types";
import { duration, figure, money, capacity } from "../../../ui/numbers";
import { useBench } from "../../bench";
import { StorageUseForm } from "./StorageUseForm";

/** What the disks of the kit are together, in each way of using them, side by side. */
export function ArrayPanel() {
  const { report, changes } = useBench();
  const { layouts, disks } = report.data;
  if (disks === 0) return null;
  const able = layouts.filter((layout) => layout.possible);
  const most = Math.max(...able.map((layout) => layout.usable_gb), 1);
  const use = (layout: LayoutReport) =>
    changes.act({
      kind: "patch",
      patch: [{ op: "set", fields: { storage_use: { layout: layout.layout } } }],
      label: `use the array layout ${layout.label}`,
    });
  return (
    <section className="data-part" aria-label="Disks">
      <h3>{disks === 1 ? "Disk" : `${disks} disks`}</h3>
      {able.length > 0 && (
        <div className="table-scroll">
          <table className="as-table layouts">
            <thead>
              <tr>
                <th scope="col">Layout</th>
                <th scope="col">Capacity</th>
                <th scope="col" className="num">
                  May fail
                </th>
                <th scope="col" className="num">
                  Writes
                </th>
                <th scope="col" className="num">
                  Risk of loss per year
                </th>
                <th scope="col" className="num">
                  Price per TB
                </th>
                <td />
              </tr>
            </thead>
            <tbody>
              {able.map((layout) => (
                <tr key={layout.layout} className={layout.chosen ? "chosen" : ""}>
                  <th scope="row">
                    {layout.label}
                    <div className="soft">{layout.speaks_for}</div>
                    <div className="soft">{rebuildText(layout)}</div>
                  </th>
                  <LayoutCells layout={layout} most={most} currency={report.cost.currency} />
                  <td className="num">
                    {layout.chosen ? (
                      <span className="soft">this plan</span>
                    ) : (
                      <Button variant="link" disabled={changes.busy} onClick={() => use(layout)}>
                        Use this<span className="visually-hidden">: {layout.label}</span>
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {able.length > 0 && (
        <p className="soft">
          {laterText(layouts)} The risk counts failed disks only, each replaced within a week.
          {disks > 1 &&
            " An array does not replace a backup: theft, fire or a wrong command still destroys all data."}
        </p>
      )}
      <StorageUseForm />
    </section>
  );
}

/** How long it takes to fill, and what happens when a disk was replaced. */
function rebuildText(layout: LayoutReport): string {
  const fill = layout.fill_h === null ? "" : `To fill: ${duration(layout.fill_h * 60)}`;
  if (layout.settle_h === null) return fill;
  const unreadable =
    layout.unreadable === null
      ? ""
      : `; risk of an unreadable bit then ${odds(layout.unreadable)} at the worst that data sheets allow`;
  return `${fill}${fill && "; "}rebuild: ${duration(layout.settle_h * 60)}${unreadable}`;
}

/** What more disks would make possible. */
function laterText(layouts: LayoutReport[]): string {
  const later = layouts
    .filter((layout) => !layout.possible)
    .map(
      (layout) =>
        `${layout.label} from ${layout.least_disks} disks${layout.layout === "striped_mirrors" ? " in pairs" : ""}`,
    );
  return later.length === 0 ? "" : `With more disks: ${later.join(", ")}.`;
}

interface CellProps {
  layout: LayoutReport;
  most: number;
  currency: string;
}

function LayoutCells({ layout, most, currency }: CellProps) {
  return (
    <>
      <td className="room">
        <span className="room-bar" style={{ width: `${(layout.usable_gb / most) * 100}%` }} />
        <span className="tabular">{capacity(layout.usable_gb)}</span>{" "}
        <span className="soft tabular">{figure(layout.usable_tib, "")} TiB</span>
      </td>
      <td className="num">{layout.may_fail === 0 ? "none" : layout.may_fail}</td>
      <td className="num">{rate(layout.write_mb_s)}</td>
      <td className="num">{odds(layout.loss_risk_per_year)}</td>
      <td className="num">
        {layout.cost_a_tb === null
          ? "not known"
          : money(Math.round(Number(layout.cost_a_tb)), currency)}
      </td>
    </>
  );
}

function rate(mbPerSecond: number | null): string {
  return mbPerSecond === null ? "no data path" : figure(mbPerSecond, "MB/s");
}

/** Small odds are told as one in so many, as nobody reads a number with five noughts. */
function odds(share: number | null): string {
  if (share === null) return "";
  if (share >= 0.01) return `${Math.round(share * 100)}\u00a0%`;
  const often = 1 / share;
  if (often > 1e6) return "below 1 in a million";
  const digits = 10 ** Math.max(0, Math.floor(Math.log10(often)) - 1);
  return `1 in ${(Math.round(often / digits) * digits).toLocaleString("en")}`;
}
