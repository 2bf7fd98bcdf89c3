import Button from "react-bootstrap/Button";

import type { LayoutReport } from "../../../api/types";
import { duration, figure, money, room } from "../../../ui/numbers";
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
      label: `disks as ${layout.label}`,
    });
  return (
    <section className="data-part" aria-label="The disks together">
      <h3>{disks === 1 ? "The disk" : `The ${disks} disks together`}</h3>
      {able.length > 0 && (
        <div className="table-scroll">
          <table className="as-table layouts">
            <thead>
              <tr>
                <th scope="col">Used as</th>
                <th scope="col">Room</th>
                <th scope="col" className="num">
                  May fail
                </th>
                <th scope="col" className="num">
                  Writes
                </th>
                <th scope="col" className="num">
                  Lost in a year
                </th>
                <th scope="col" className="num">
                  A usable TB
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
                        use so
                        <span className="visually-hidden"> as {layout.label}</span>
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
          {laterText(layouts)} Odds are of failing disks alone, a new one bought within a week;
          theft, fire and wrong commands come on top: no array is a back-up.
        </p>
      )}
      <StorageUseForm />
    </section>
  );
}

/** What happens when a disk was replaced. */
function rebuildText(layout: LayoutReport): string {
  if (layout.settle_h === null) return "";
  const unreadable =
    layout.unreadable === null ? "" : `; ${odds(layout.unreadable)} that a bit cannot be read then`;
  return `settles, and fills a new disk, in ${duration(layout.settle_h * 60)}${unreadable}`;
}

/** What more disks would make possible. */
function laterText(layouts: LayoutReport[]): string {
  const later = layouts
    .filter((layout) => !layout.possible)
    .map(
      (layout) =>
        `${layout.label} from ${layout.least_disks} disks on${layout.layout === "striped_mirrors" ? " in pairs" : ""}`,
    );
  return later.length === 0 ? "" : `Possible besides: ${later.join(", ")}.`;
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
        <span className="tabular">{room(layout.usable_gb)}</span>{" "}
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
  return mbPerSecond === null ? "no way" : figure(mbPerSecond, "MB/s");
}

/** Small odds are told as one in so many, as nobody reads a number with five noughts. */
function odds(share: number | null): string {
  if (share === null) return "";
  if (share >= 0.01) return `${Math.round(share * 100)} %`;
  const often = 1 / share;
  if (often > 1e6) return "below 1 in a million";
  const digits = 10 ** Math.max(0, Math.floor(Math.log10(often)) - 1);
  return `1 in ${(Math.round(often / digits) * digits).toLocaleString("en")}`;
}
