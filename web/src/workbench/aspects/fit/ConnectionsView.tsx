import { useQuery } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import Button from "react-bootstrap/Button";

import { socketsQuery } from "../../../api/queries";
import type { Effect, Report } from "../../../api/types";
import { Cobble } from "../../../ui/Cobble";
import { change } from "../../../ui/numbers";
import { Failure, Loading } from "../../../ui/States";
import { useBench } from "../../bench";
import { textOf } from "../../../ui/text";

type Connection = Report["fit"]["connections"][number];

/** What is plugged where, and where else it could go. */
export function ConnectionsView() {
  const { report, changes } = useBench();
  const { connections, spare } = report.fit;
  const [open, setOpen] = useState<string | null>(null);
  if (connections.length === 0) return <p className="soft pt-2">No connections yet.</p>;
  const letGo = (entry: Connection) => {
    const [line, item] = plugOf(entry.plug);
    changes.act({
      kind: "patch",
      patch: [
        { op: "pin", line, plug: item, socket: null },
        { op: "pin", line, plug: item.slice(item.indexOf(".") + 1), socket: null },
      ],
      label: `choose the socket of ${entry.plug_label} automatically`,
    });
  };
  return (
    <>
      <table className="as-table connections">
        <thead>
          <tr>
            <th scope="col">Plug</th>
            <th scope="col">Port or slot</th>
            <th scope="col">Link</th>
            <th scope="col">
              <span className="visually-hidden">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {connections.map((entry) => (
            <Fragment key={entry.plug}>
              <tr>
                <th scope="row">{entry.plug_label}</th>
                <td>
                  {entry.socket_label}
                  {entry.pinned && <span className="soft"> (your choice)</span>}
                </td>
                <td className="soft tabular">
                  {textOf(entry.link.text ? entry.link : entry.bus)}
                  {entry.shares_with && <div>shared with {entry.shares_with}</div>}
                </td>
                <td className="actions">
                  <Button
                    variant="link"
                    aria-expanded={open === entry.plug}
                    aria-label={`Move ${entry.plug_label}`}
                    onClick={() => setOpen(open === entry.plug ? null : entry.plug)}
                  >
                    {open === entry.plug ? "Close" : "Move"}
                  </Button>
                  {entry.pinned && (
                    <Button
                      variant="link"
                      aria-label={`Choose the socket of ${entry.plug_label}`}
                      onClick={() => letGo(entry)}
                    >
                      Choose automatically
                    </Button>
                  )}
                </td>
              </tr>
              {open === entry.plug && (
                <tr className="places-row">
                  <td colSpan={4}>
                    <Sockets
                      plug={entry.plug}
                      name={entry.plug_label}
                      onDone={() => setOpen(null)}
                    />
                  </td>
                </tr>
              )}
            </Fragment>
          ))}
        </tbody>
      </table>
      <h3 className="view-head">Free ports and slots</h3>
      {spare.length === 0 && <p className="soft mb-0">No free ports or slots.</p>}
      <ul className="free-list">
        {freeSockets(report).map((row) => (
          <li key={row}>{row}</li>
        ))}
      </ul>
    </>
  );
}

interface SocketsProps {
  plug: string;
  name: string;
  onDone: () => void;
}

/** Each socket that takes the plug, with what the plan would be like then. */
function Sockets({ plug, name, onDone }: SocketsProps) {
  const { view, whatIf, changes, report } = useBench();
  const sockets = useQuery(socketsQuery(view.id, view.version, whatIf, plug));
  if (sockets.isPending) return <Loading what="the sockets" />;
  if (sockets.isError)
    return <Failure error={sockets.error} retry={() => void sockets.refetch()} />;
  return (
    <ul className="place-list" aria-label={`Sockets for ${name}`}>
      {sockets.data.map((place) => (
        <li key={place.socket}>
          <Cobble severity={place.current ? report.severity : place.effect.severity} />
          <div>
            <strong>{place.label}</strong>
            {place.holder && (
              <span className="soft"> in use by {place.holder}, which then moves</span>
            )}
            {place.reason.text && <div className="tone-problem">{textOf(place.reason)}</div>}
            {!place.current && !place.reason.text && (
              <div className="soft tabular">{effectText(place.effect, report)}</div>
            )}
          </div>
          {place.current ? (
            <span className="soft">current</span>
          ) : (
            <Button
              variant=""
              size="sm"
              disabled={changes.busy}
              aria-label={`Plug ${name} into ${place.label}`}
              onClick={() =>
                changes.act(
                  { kind: "patch", patch: place.patch, label: `${name} into ${place.label}` },
                  onDone,
                )
              }
            >
              Use this socket
            </Button>
          )}
        </li>
      ))}
      {sockets.data.length === 0 && <li>No other socket fits this plug.</li>}
    </ul>
  );
}

function effectText(effect: Effect, report: Report): string {
  const now = (severity: string) =>
    report.findings.filter((finding) => finding.severity === severity).length;
  const amps = change(effect.source_delta_a, "A");
  if (effect.problems === now("problem") && effect.tight === now("tight"))
    return amps ? `${amps}, otherwise unchanged` : "unchanged";
  const snags = [
    effect.problems > 0
      ? `${effect.problems} problem${effect.problems > 1 ? "s" : ""}`
      : "no problems",
    effect.tight > 0 ? `${effect.tight} tight` : "",
    amps,
  ];
  return snags.filter(Boolean).join(", ");
}

/** `line#2.usb` as the line and the plug of its second piece. */
function plugOf(plug: string): [string, string] {
  const dot = plug.lastIndexOf(".");
  const mark = plug.lastIndexOf("#", dot);
  return [plug.slice(0, mark), plug.slice(mark + 1)];
}

/** Free sockets by the piece that has them: `Mullion 8: 2 × USB 3 socket, fan plug`. */
function freeSockets(report: Report): string[] {
  const names = new Map(report.lines.map((line) => [line.id, line.name]));
  const byLine = new Map<string, Map<string, number>>();
  for (const socket of report.fit.spare) {
    const counts = byLine.get(socket.line) ?? new Map<string, number>();
    counts.set(socket.label, (counts.get(socket.label) ?? 0) + 1);
    byLine.set(socket.line, counts);
  }
  return [...byLine].map(([line, counts]) => {
    const sockets = [...counts].map(([label, count]) =>
      count > 1 ? `${count} × ${label}` : label,
    );
    return `${names.get(line) ?? line}: ${sockets.join(", ")}`;
  });
}
