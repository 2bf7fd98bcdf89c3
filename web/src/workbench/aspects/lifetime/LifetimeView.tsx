import Button from "react-bootstrap/Button";

import { ANSWERED_YEARS, bare, figure, money, capacity, trimmed, years } from "../../../ui/numbers";
import { useWidth } from "../../../ui/useWidth";
import { useBench } from "../../bench";
import { BackupMap } from "./BackupMap";
import { FillDrawing } from "./FillDrawing";
import { RetentionForm } from "./RetentionForm";
import { ropes, type Rope } from "./ropes";
import { textOf } from "../../../ui/text";

/** How long it lasts: what wears, how it fills, what is left when something happens. */
export function LifetimeView() {
  const { report } = useBench();
  return (
    <>
      <RetentionForm />
      {report.lifetime.wears.length === 0 ? (
        <p className="soft pt-3">No part in this kit has lifetime data.</p>
      ) : (
        <Ropes />
      )}
      <Cards />
      <FillDrawing />
      <BackupMap />
      <Maintenance />
    </>
  );
}

function Ropes() {
  const { report, openWorking, setChosenLine } = useBench();
  const [frame, width] = useWidth(640);
  const layout = ropes(report.lifetime, width);
  const told = layout.drawn.map((rope) => `${rope.name} ${rope.text}`).join("; ");
  return (
    <>
      <div ref={frame}>
        <svg
          className="drawing ropes"
          viewBox={`0 0 ${width} ${layout.height}`}
          role="group"
          aria-label={`Years until worn out: ${told}`}
        >
          {layout.ticks.map((tick) => (
            <g key={tick.years}>
              <line className="tick" x1={tick.x} x2={tick.x} y1={layout.top} y2={layout.foot} />
              <text className="small" x={tick.x} y={layout.height - 6} textAnchor="middle">
                {tick.years}
              </text>
            </g>
          ))}
          <text className="small" x={layout.end + 12} y={layout.height - 6}>
            years
          </text>
          {layout.drawn.map((rope) => (
            <g key={rope.wear.id} onClick={() => setChosenLine(rope.wear.line)}>
              <RopeShape rope={rope} layout={layout} width={width} />
            </g>
          ))}
          <line
            className="limit"
            x1={layout.wanted}
            x2={layout.wanted}
            y1={layout.top - 6}
            y2={layout.foot}
          />
          <text x={layout.wanted} y={layout.top - 11} textAnchor="middle">
            required {trimmed(figure(report.lifetime.wanted_years, ""))} years
          </text>
        </svg>
      </div>
      <details className="details-table">
        <summary>Table with data written</summary>
        <table className="as-table">
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Cause</th>
              <th scope="col" className="num">
                Years
              </th>
              <th scope="col" className="num">
                Likely
              </th>
            </tr>
          </thead>
          <tbody>
            {report.lifetime.wears.map((wear) => (
              <tr key={wear.id}>
                <th scope="row">{wear.label}</th>
                <td>
                  {wear.written.length === 0
                    ? textOf(wear.how)
                    : wear.written.map((entry) => (
                        <div key={entry.by}>
                          {entry.by}: {figure(entry.gb_day, "GB")} per day,{" "}
                          {figure(entry.inside_gb_day, "GB")} with write amplification
                        </div>
                      ))}
                </td>
                <td className="num">
                  <Button
                    variant="link"
                    className="told"
                    disabled={!wear.margin}
                    onClick={() => openWorking(wear.margin)}
                  >
                    {years(wear.years, wear.most_years)}
                  </Button>
                </td>
                <td className="num">
                  {wear.years_p05 !== null &&
                  wear.years_p95 !== null &&
                  wear.years_p05 < wear.most_years
                    ? `${bare(wear.years_p05, "years")} to ${years(wear.years_p95, wear.most_years)}`
                    : ""}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </>
  );
}

interface RopeProps {
  rope: Rope;
  layout: ReturnType<typeof ropes>;
  width: number;
}

/** Whole up to where its band begins, then frayed; the knot is where it parts by typical figures. */
function RopeShape({ rope, layout, width: whole }: RopeProps) {
  const { y, sure, parts, ends } = rope;
  const { start, end, stacked } = layout;
  const width = ends - sure;
  const strands = [
    `M${sure} ${y - 2}C${sure + width * 0.4} ${y - 2} ${sure + width * 0.7} ${y - 8} ${ends} ${y - 9}`,
    `M${sure} ${y + 2}C${sure + width * 0.3} ${y + 3} ${sure + width * 0.5} ${y + 7} ${sure + width * 0.8} ${y + 9}`,
  ];
  return (
    <g className={rope.short ? "rope short" : "rope"}>
      <text className="strong" x={0} y={stacked ? y - 15 : y + 4}>
        {stacked ? rope.name : fitted(rope.name, start)}
        <title>{rope.name}</title>
      </text>
      <line className="whole" x1={start} x2={Math.max(sure, start + 2)} y1={y} y2={y} />
      {width > 2 && strands.map((path) => <path key={path} className="strand" d={path} />)}
      <line className="core" x1={sure} x2={parts} y1={y} y2={y} />
      {!rope.beyond && <circle className="knot" cx={parts} cy={y} r={4} />}
      <text
        className="rope-text"
        x={stacked ? whole : end + 12}
        y={stacked ? y - 15 : y + 4}
        textAnchor={stacked ? "end" : "start"}
      >
        {rope.text}
      </text>
    </g>
  );
}

/** A name as far as there is room for it; the whole of it is told on hover and in the table. */
function fitted(name: string, width: number): string {
  const letters = Math.floor(width / 6.6);
  return name.length <= letters ? name : `${name.slice(0, letters - 1).trimEnd()}…`;
}

/** Memory cards for this image: the smallest, the one with most capacity for its price, and how long each lasts. */
function Cards() {
  const { report, openParts } = useBench();
  const { cards } = report.lifetime;
  const line = report.lines.find((entry) => entry.role === "boot_drive");
  if (cards.length < 2 || !line) return null;
  return (
    <details className="details-table">
      <summary>Memory cards for this image</summary>
      <table className="as-table">
        <thead>
          <tr>
            <th scope="col">Memory card</th>
            <th scope="col" className="num">
              Capacity
            </th>
            <th scope="col" className="num">
              Price
            </th>
            <th scope="col" className="num">
              Price per GB
            </th>
            <th scope="col" className="num">
              Years
            </th>
            <td />
          </tr>
        </thead>
        <tbody>
          {cards.map((card) => (
            <tr key={card.part}>
              <th scope="row">{card.name}</th>
              <td className="num">{capacity(card.capacity_gb)}</td>
              <td className="num">{money(card.price, report.cost.currency)}</td>
              <td className="num">{money(card.price_a_gb, report.cost.currency)}</td>
              <td className="num">
                {card.years === null
                  ? "not known"
                  : years(card.years, ANSWERED_YEARS).replace(/\syears/, "")}
              </td>
              <td className="soft">
                {[
                  card.use && "in this plan",
                  card.smallest && "smallest that fits",
                  card.sweet && "most capacity for its price",
                ]
                  .filter(Boolean)
                  .join(", ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button variant="link" onClick={() => openParts("boot_drive", line.id)}>
        Show memory cards
      </Button>
    </details>
  );
}

function Maintenance() {
  const { report, view } = useBench();
  const { maintenance } = report.lifetime;
  if (maintenance.length === 0) return null;
  return (
    <section className="data-part" aria-label="Maintenance">
      <h3>Maintenance</h3>
      <ul className="upkeep">
        {maintenance.map((entry) => (
          <li key={entry.id}>
            <span className="tabular">{often(entry.every_days, entry.once ?? false)}</span>
            {entry.text}
          </li>
        ))}
      </ul>
      <a className="btn btn-sm" href={`/api/plans/${view.id}/maintenance.ics`} download>
        Export as calendar
      </a>
      <span className="soft ms-2">iCalendar file, from today</span>
    </section>
  );
}

function often(days: number, once: boolean): string {
  if (once) return `after ${figure(days / 365, "years")}`;
  if (days === 1) return "every day";
  if (days < 28) return days === 7 ? "every week" : `every ${days} days`;
  const months = Math.round(days / 30);
  if (months < 12) return months === 1 ? "every month" : `every ${months} months`;
  return months === 12 ? "every year" : `every ${Math.round(months / 12)} years`;
}
