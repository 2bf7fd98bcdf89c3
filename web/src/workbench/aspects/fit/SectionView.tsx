import { useQuery } from "@tanstack/react-query";
import { templateKindsQuery } from "../../../api/queries";
import { useState } from "react";
import Button from "react-bootstrap/Button";

import type { Report } from "../../../api/types";
import { bare, figure, sides, stated } from "../../../ui/numbers";
import { shownUnit } from "../../../ui/displayUnits";
import { useWidth } from "../../../ui/useWidth";
import { litLines, useBench } from "../../bench";
import { FitDrawing } from "./FitDrawing";
import { fitLayout } from "./fitLayout";
import { headed } from "../../../ui/numbers";
import { NO_BREAK } from "../../../ui/text";

const ROOM_PX = 380;

/** The stack from the side, to scale, with its gaps, and the standoffs that hold it. */
export function SectionView() {
  const bench = useBench();
  const { report } = bench;
  const [frame, width] = useWidth(640);
  const [access, setAccess] = useState(false);
  const [near, setNear] = useState<string | null>(null);
  const layout = fitLayout(report, width, ROOM_PX);
  return (
    <>
      <div className="drawing-bar">
        <Button variant="link" aria-pressed={access} onClick={() => setAccess(!access)}>
          {access ? "Hide" : "Show"} access paths
        </Button>
        {near !== null && (
          <Button variant="link" onClick={() => setNear(null)}>
            Show all
          </Button>
        )}
        <span className="right soft">
          {layout?.shell ? `${layout.shell.label}. ` : ""}To scale, {shownUnit("mm")} from the left
          edge of the board
        </span>
      </div>
      <div ref={frame}>
        {layout ? (
          <FitDrawing
            layout={layout}
            lit={litLines(bench)}
            access={access}
            near={near}
            onNear={setNear}
          />
        ) : (
          <p className="soft pt-2">Nothing to draw yet. Add a board.</p>
        )}
      </div>
      <Beside report={report} />
      {access && <Ways report={report} />}
      <Heights report={report} />
      <Fasteners report={report} />
      <TemplateFiles />
      <Blocks report={report} />
    </>
  );
}

type Outside = Report["fit"]["outside"][number];

/** "100 × 70 × 7 mm, up to 0.2 m from the USB 3 port", as far as it is known. */
function whereabouts(thing: Outside): string {
  const size = thing.size_mm ? `${sides(thing.size_mm, "mm")}, ` : "";
  const where = thing.reach_m === null ? "at" : `up to ${stated(thing.reach_m, "m")} from`;
  return `${size}${where} the ${thing.at}`;
}

const TO_SCALE_PX = 46;

/** Its outline from above, all of them to one scale; nothing where its size is not known. */
function ToScale({ size, largest }: { size: number[] | null; largest: number }) {
  const [length, width] = size ?? [];
  if (length === undefined || width === undefined) return null;
  const scale = TO_SCALE_PX / largest;
  const across = Math.max(2, length * scale);
  const high = Math.max(2, width * scale);
  return (
    <svg className="to-scale" width={across} height={high} aria-hidden>
      <rect x={0.5} y={0.5} width={across - 1} height={high - 1} rx={1} />
    </svg>
  );
}

/** Parts beside the case, each at the end of its lead or in its socket. */
function Beside({ report }: { report: Report }) {
  const bench = useBench();
  const lit = litLines(bench);
  const { outside } = report.fit;
  if (outside.length === 0) return null;
  const largest = Math.max(1, ...outside.flatMap((thing) => thing.size_mm ?? []));
  return (
    <div className="beside">
      <span className="soft">Beside the case</span>
      <ul className="beside-things" aria-label="Parts beside the case">
        {outside.map((thing, index) => (
          <li
            key={`${thing.line}/${index}`}
            className={`beside-thing ${lit.has(thing.line) ? "lit" : ""}`}
          >
            <ToScale size={thing.size_mm} largest={largest} />
            <span>
              <strong>{thing.label}</strong> <span className="soft">{whereabouts(thing)}</span>
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What has to come off before a card or a plug is reached. */
function Ways({ report }: { report: Report }) {
  const { access } = report.fit;
  return (
    <ul className="free-list soft mt-2">
      {access.map((zone) => (
        <li key={zone.label}>
          {headed(zone.label)}:{" "}
          {zone.first.length > 0 ? (
            <strong>{zone.first.join(" and ")} first</strong>
          ) : (
            "free access"
          )}
          .
        </li>
      ))}
      {access.length === 0 && <li>No plugs at the edges of the board yet.</li>}
    </ul>
  );
}

/** What the drawing says, for those who cannot see it. */
function Heights({ report }: { report: Report }) {
  const { reaches, gaps, overlaps } = report.fit;
  const told = [
    ...reaches.map(
      (entry) => `${entry.label} reaches ${figure(entry.reach_mm, "mm")} ${entry.side} the board.`,
    ),
    ...gaps.map((gap) =>
      gap.gap_mm < 0
        ? `${gap.above} is ${figure(-gap.gap_mm, "mm")} too close to ${gap.below}.`
        : `Clearance between ${gap.below} and ${gap.above}: ${figure(gap.gap_mm, "mm")}.`,
    ),
    ...overlaps.map((entry) => `${entry.one.label} and ${entry.other.label} overlap.`),
  ];
  return told.length > 0 ? <p className="soft mt-2 mb-0">{told.join(" ")}</p> : null;
}

function Fasteners({ report }: { report: Report }) {
  const { fasteners } = report.fit;
  if (fasteners.length === 0) return null;
  return (
    <>
      <h3 className="view-head">Standoffs and screws</h3>
      <table className="as-table">
        <thead className="visually-hidden">
          <tr>
            <th scope="col">Quantity</th>
            <th scope="col">Fastener</th> <th scope="col">Position</th>
          </tr>
        </thead>
        <tbody>
          {fasteners.map((item) => (
            <tr key={`${item.kind}/${item.where}`}>
              <td className="num">{item.count} ×</td>
              <td className="tabular">
                {item.kind}{" "}
                {item.length_mm === null ? (
                  <strong className="tone-tight">no length in this kit fits</strong>
                ) : (
                  `M2.5 × ${item.length_mm}${NO_BREAK}mm`
                )}
                {item.washers_mm > 0 && ` and ${figure(item.washers_mm, "mm")} of washers`}
              </td>
              <td className="soft">{item.where}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** Both drawings as a table: every block with its place and size, from the top down. */
function Blocks({ report }: { report: Report }) {
  const { boxes, plugs } = report.fit;
  if (boxes.length === 0) return null;
  const rows = [...boxes, ...plugs].sort((a, b) => b.z_mm - a.z_mm);
  const span = (from: number, size: number) => `${bare(from, "mm")} to ${bare(from + size, "mm")}`;
  return (
    <details className="details-table">
      <summary>
        Table, in {shownUnit("mm")} from the lower left corner and the upper face of the board
      </summary>
      <table className="as-table">
        <thead>
          <tr>
            <th scope="col">Item</th>
            <th scope="col" className="num">
              Length
            </th>
            <th scope="col" className="num">
              Width
            </th>
            <th scope="col" className="num">
              Height
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((box, index) => (
            <tr key={`${box.item}/${box.label}/${index}`}>
              <th scope="row">{box.look === "plug" ? `${box.label}, plug` : box.label}</th>
              <td className="num tabular">{span(box.x_mm, box.dx_mm)}</td>
              <td className="num tabular">{span(box.y_mm, box.dy_mm)}</td>
              <td className="num tabular">{span(box.z_mm, box.dz_mm)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

const FILES: Record<string, string> = { pdf: "PDF to print", svg: "SVG", dxf: "DXF" };

function TemplateFiles() {
  const { view, report } = useBench();
  const kinds = useQuery(templateKindsQuery);
  if (report.fit.template_why_not)
    return <p className="soft mt-2">No drilling template. {report.fit.template_why_not}</p>;
  return (
    <p className="soft mt-2">
      Drilling template of the case, at full size:{" "}
      {kinds.data?.map(({ kind, needs }, index) => (
        <span key={kind}>
          {index > 0 && ", "}
          {needs ? (
            <>
              {FILES[kind]} (to install: <code>{needs}</code>)
            </>
          ) : (
            <a href={`/api/plans/${view.id}/template.${kind}`} download>
              {FILES[kind]}
            </a>
          )}
        </span>
      ))}
      . Wear eye protection, ventilate the room and deburr sharp edges.
    </p>
  );
}
