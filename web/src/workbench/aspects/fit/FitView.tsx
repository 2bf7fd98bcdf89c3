import type { Report } from "../../../api/types";
import { figure } from "../../../ui/numbers";
import { useWidth } from "../../../ui/useWidth";
import { litLines, useBench } from "../../bench";
import { FitDrawing } from "./FitDrawing";
import { fitLayout } from "./fitLayout";

const ROOM_PX = 400;

export function FitView() {
  const bench = useBench();
  const { report } = bench;
  const [frame, width] = useWidth(640);
  const layout = fitLayout(report, width, ROOM_PX);
  return (
    <>
      <div className="aspect-bar">
        <span className="lead-word">From the side</span>
        {layout?.shell && <span>{layout.shell.label}</span>}
        <span className="right">to scale, mm from the board’s left edge</span>
      </div>
      <div ref={frame}>
        {layout ? (
          <FitDrawing layout={layout} lit={litLines(bench)} />
        ) : (
          <p className="soft pt-2">There is nothing to draw yet: the stack begins with a board.</p>
        )}
      </div>
      <Connections report={report} />
    </>
  );
}

function Connections({ report }: { report: Report }) {
  const { connections, spare, reaches } = report.fit;
  if (connections.length === 0) return null;
  return (
    <>
      <h3 className="fs-6 mt-3 mb-1">What is plugged where</h3>
      <table className="as-table">
        <thead className="visually-hidden">
          <tr>
            <th scope="col">Plug</th>
            <th scope="col">Socket</th>
            <th scope="col">Link</th>
          </tr>
        </thead>
        <tbody>
          {connections.map((entry) => (
            <tr key={entry.plug}>
              <td>{entry.plug_label}</td>
              <td className="soft">
                {entry.socket_label}
                {entry.pinned && " (chosen)"}
              </td>
              <td className="soft tabular">{entry.link}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="soft mt-2">
        {spare.length > 0 && `Still free: ${freeSockets(spare)}. `}
        {reaches
          .map(
            (reach) =>
              `${reach.label} reaches ${figure(reach.reach_mm, "mm")} ${reach.side} the board.`,
          )
          .join(" ")}
      </p>
    </>
  );
}

function freeSockets(spare: Report["fit"]["spare"]): string {
  const counts = new Map<string, number>();
  for (const socket of spare) counts.set(socket.label, (counts.get(socket.label) ?? 0) + 1);
  return [...counts]
    .map(([label, count]) => (count > 1 ? `${count} × ${label}` : label))
    .join(", ");
}
