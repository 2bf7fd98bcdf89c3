import { useState } from "react";
import Button from "react-bootstrap/Button";

import type { Moved, Report, Situation } from "../../../api/types";
import { duration, figure, capacity } from "../../../ui/numbers";
import { useBench } from "../../bench";
import { ArrayPanel } from "./ArrayPanel";
import { betterText } from "./better";
import { BetterBars } from "./BetterBars";
import { chosenTransfer, isShort } from "./chosenTransfer";
import { TransferList } from "./TransferList";
import { TimeBar } from "./TimeBar";
import { PathDrawing } from "./PathDrawing";
import { headed } from "../../../ui/numbers";

/** How fast data move: one flow at a time on its way, alone or beside all others. */
export function DataView() {
  const { report } = useBench();
  const [transfer, setTransfer] = useState<string | null>(null);
  const [atOnce, setAtOnce] = useState(false);
  const shown = chosenTransfer(report, transfer, atOnce);
  return (
    <>
      <TransferSwitch
        report={report}
        current={shown?.moved.transfer ?? null}
        atOnce={atOnce}
        onTransfer={setTransfer}
        onAtOnce={setAtOnce}
      />
      {shown === null ? (
        <p className="soft pt-3">
          {report.data.no_path.length > 0
            ? "No transfer has a data path in this kit yet."
            : "No transfers yet. Add one below."}
        </p>
      ) : (
        <TransferFigures key={shown.moved.transfer} {...shown} />
      )}
      {report.data.no_path.map((entry) => (
        <p key={entry.transfer} className="soft">
          Not checked: “{entry.text}”. {headed(entry.why_not)}.
        </p>
      ))}
      <ArrayPanel />
      <TransferList />
    </>
  );
}

interface SwitchProps {
  report: Report;
  current: string | null;
  atOnce: boolean;
  onTransfer: (transfer: string) => void;
  onAtOnce: (atOnce: boolean) => void;
}

function TransferSwitch({ report, current, atOnce, onTransfer, onAtOnce }: SwitchProps) {
  const { situations } = report.data;
  const transfers = situations.filter((entry) => !entry.worst_case).flatMap((entry) => entry.moved);
  if (transfers.length === 0) return null;
  return (
    <div className="aspect-bar" role="group" aria-label="Transfer">
      <span className="lead-word">Transfer</span>
      {transfers.map((entry) => (
        <Button
          key={entry.transfer}
          variant=""
          size="sm"
          aria-pressed={entry.transfer === current}
          onClick={() => onTransfer(entry.transfer)}
        >
          {entry.text}
        </Button>
      ))}
      {situations.some((entry) => entry.worst_case) && (
        <Button
          variant=""
          size="sm"
          className="apart"
          aria-pressed={atOnce}
          onClick={() => onAtOnce(!atOnce)}
        >
          Worst case
        </Button>
      )}
    </div>
  );
}

function TransferFigures({ situation, moved }: { situation: Situation; moved: Moved }) {
  const { report, setChosenLine, openWorking } = useBench();
  const [link, setLink] = useState<string | null>(null);
  const margin = report.margins.find((entry) => entry.id === `DATA-01:${moved.transfer}`);
  const short = isShort(moved);
  const choose = (id: string) => {
    setLink(id);
    const line = moved.links.find((entry) => entry.id === id)?.line;
    if (line) setChosenLine(line);
  };
  return (
    <>
      <p className="flow-verdict">
        <strong>{said(moved)}</strong>
        {situation.worst_case && <span className="soft"> in the worst case</span>}
        {margin && (
          <Button variant="link" className="ms-2" onClick={() => openWorking(margin.id)}>
            Show the working
          </Button>
        )}
      </p>
      <PathDrawing moved={moved} short={short} link={link} onChoose={choose} />
      <ChosenLink moved={moved} link={moved.links.find((entry) => entry.id === link)} />
      {moved.betters.length > 0 && <BetterBars moved={moved} />}
      {moved.minutes !== null && moved.amount_gb !== null && <TimeBar moved={moved} />}
      {moved.small_mb_s !== null && moved.amount_gb !== null && (
        <p className="soft">
          Small files of 1 MB: {figure(moved.small_mb_s, "MB/s")},{" "}
          {duration((moved.amount_gb * 1000) / moved.small_mb_s / 60)} for{" "}
          {capacity(moved.amount_gb)}.
        </p>
      )}
      {moved.stream && moved.buffer_mb !== null && !short && (
        <p className="soft">
          The drive pauses from time to time. A buffer of {bufferText(moved.buffer_mb)} bridges the
          pauses.
        </p>
      )}
      {moved.lag !== null && (
        <p className="soft">
          The picture is seen about {figure(moved.lag.typical_s, "s")} later (
          {figure(moved.lag.least_s, "")} to {figure(moved.lag.most_s, "s")}, by typical values).
        </p>
      )}
      <PathTable moved={moved} />
    </>
  );
}

interface ChosenProps {
  moved: Moved;
  link: Moved["links"][number] | undefined;
}

/** What the chosen link lets by, and what a better one would bring. */
function ChosenLink({ moved, link }: ChosenProps) {
  const { openWorking } = useBench();
  return (
    <p className="way-chosen" aria-live="polite">
      {link === undefined ? (
        <span className="soft">Choose a link to see its rate and what a faster link changes.</span>
      ) : (
        <>
          <strong>{headed(link.label)}</strong>
          {link.note && ` (${link.note})`} carries up to {figure(link.mb_s, "MB/s")}.
          <Button
            variant="link"
            className="mx-2"
            aria-label={`Working of ${link.label}`}
            onClick={() => openWorking(link.figure)}
          >
            Show the working
          </Button>
          <span className="soft">{betterText(moved, link.id)}</span>
        </>
      )}
    </p>
  );
}

function bufferText(mb: number): string {
  return mb < 1 ? `${Math.max(1, Math.round(mb * 1000))} kB` : figure(mb, "MB");
}

/** What a flow gets, in a few words. */
function said(moved: Moved): string {
  if (moved.stream) {
    const wanted = figure(moved.wanted_mb_s ?? moved.rate_mb_s, "MB/s");
    return isShort(moved)
      ? `Requires ${wanted}, reaches ${figure(moved.rate_mb_s, "MB/s")}`
      : `${wanted} without a gap; up to ${figure(moved.could_mb_s, "MB/s")} is possible`;
  }
  const bottleneck = moved.bottleneck_label ? `; bottleneck: ${moved.bottleneck_label}` : "";
  return `${figure(moved.rate_mb_s, "MB/s")}${bottleneck}`;
}

function PathTable({ moved }: { moved: Moved }) {
  return (
    <details className="details-table">
      <summary>Table</summary>
      <table className="as-table">
        <thead>
          <tr>
            <th scope="col">Link</th>
            <th scope="col">To</th>
            <th scope="col" className="num">
              Maximum
            </th>
            <th scope="col" className="num">
              Used
            </th>
            <th scope="col">Notes</th>
          </tr>
        </thead>
        <tbody>
          {moved.links.map((link) => (
            <tr key={link.id}>
              <th scope="row">{link.label}</th>
              <td>{link.to}</td>
              <td className="num">{figure(link.mb_s, "MB/s")}</td>
              <td className="num">{figure(link.taken_mb_s, "MB/s")}</td>
              <td className="soft">
                {[link.note, ...link.shared_with.map((text) => `shared with ${text}`)]
                  .filter(Boolean)
                  .join("; ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
