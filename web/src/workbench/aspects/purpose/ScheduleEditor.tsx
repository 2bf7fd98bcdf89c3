import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import type { Activity } from "../../../api/types";
import { FigureInput } from "../../../ui/FigureInput";
import { Meanwhile } from "../../../ui/Meanwhile";
import { stated } from "../../../ui/numbers";
import { Term } from "../../../ui/Term";
import { useTyped } from "../../../ui/typed";
import { useBench } from "../../bench";
import { scheduleFrom, segments, textOf, type PhaseText } from "./day";
import { FIELDS, LOADS } from "../../../api/labels";

const ACTIVITIES = Object.keys(LOADS) as Activity[];

/** Daily schedule: a strip of 24 hours, and its parts by name, length and work. */
export function ScheduleEditor() {
  const { view, changes, report } = useBench();
  const nameOf = (line: string) => report.lines.find((entry) => entry.id === line)?.name ?? line;
  const typed = useTyped({ day: asDay(textOf(view.plan.schedule)) }, view.version);
  const { rows } = typed.text.day;
  const setRows = (next: PhaseText[]) => typed.setText({ day: asDay(next) });
  const [wrong, setWrong] = useState("");
  const put = (index: number, change: Partial<PhaseText>) =>
    setRows(rows.map((row, at) => (at === index ? { ...row, ...change } : row)));
  const save = () => {
    const read = scheduleFrom(rows);
    if ("wrong" in read) {
      setWrong(read.wrong);
      return;
    }
    setWrong("");
    changes.act(
      {
        kind: "patch",
        patch: [{ op: "set", fields: { schedule: read.schedule } }],
        label: "daily schedule",
      },
      (stored) => typed.settle({ day: asDay(textOf(stored.plan.schedule)) }, stored.version),
    );
  };
  return (
    <section className="purpose-part" aria-label="Daily schedule">
      <h3>
        <Term of="schedule">Daily schedule</Term>
      </h3>
      <DayStrip rows={rows} />
      <table className="day-table">
        <tbody>
          {rows.map((row, index) => (
            <tr key={index}>
              <td>
                <Form.Control
                  size="sm"
                  aria-label={`Name of phase ${index + 1}`}
                  maxLength={60}
                  value={row.name}
                  onChange={(event) => put(index, { name: event.target.value })}
                />
              </td>
              <td className="hours">
                <div className="with-unit">
                  <FigureInput
                    size="sm"
                    className="tabular"
                    aria-label={`Hours of ${row.name}`}
                    unit="h"
                    value={row.hours}
                    onChange={(hours) => put(index, { hours })}
                  />
                  <span className="unit">h</span>
                </div>
              </td>
              <td className="activity">
                <Form.Select
                  size="sm"
                  aria-label={`Load in ${row.name}`}
                  value={row.activity}
                  onChange={(event) => put(index, { activity: event.target.value as Activity })}
                >
                  {ACTIVITIES.map((activity) => (
                    <option key={activity} value={activity}>
                      {LOADS[activity]}
                    </option>
                  ))}
                </Form.Select>
              </td>
              <td className="soft">{exceptions(row, nameOf)}</td>
              <td>
                <Button
                  variant="link"
                  aria-label={`Remove ${row.name}`}
                  onClick={() => setRows(rows.filter((_, at) => at !== index))}
                >
                  Remove
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {wrong && (
        <p role="alert" className="field-wrong">
          {wrong}
        </p>
      )}
      <Meanwhile typed={typed} rows={{ day: FIELDS.plan.schedule }} />
      <div className="day-actions">
        <Button
          variant=""
          size="sm"
          onClick={() =>
            setRows([...rows, { name: "", hours: "1", activity: "normal", lines: {} }])
          }
        >
          Add a phase
        </Button>
        {typed.dirty && (
          <>
            <Button variant="primary" size="sm" disabled={changes.busy} onClick={save}>
              Save schedule
            </Button>
            <Button variant="" size="sm" onClick={() => typed.take("day")}>
              Discard
            </Button>
          </>
        )}
      </div>
    </section>
  );
}

/** The parts of a day as they are typed, and how they are told. */
function asDay(rows: PhaseText[]) {
  return { rows, text: rows.map((row) => `${row.name} ${row.hours} h`).join(", ") };
}

function exceptions(row: PhaseText, nameOf: (line: string) => string): string {
  const others = Object.entries(row.lines);
  return others
    .map(([line, activity]) => `${nameOf(line)}: ${LOADS[activity].toLowerCase()}`)
    .join(", ");
}

const STRIP_WIDTH = 624;
const STRIP_HEIGHT = 30;

/** Twenty-four hours from left to right; the fuller, the more work. */
function DayStrip({ rows }: { rows: PhaseText[] }) {
  const parts = segments(rows);
  const told = parts.map((part) => `${part.name} ${stated(part.hours, "h")}`).join(", ");
  return (
    <svg
      className="day-strip"
      viewBox={`0 0 ${STRIP_WIDTH} ${STRIP_HEIGHT + 16}`}
      role="img"
      aria-label={`Daily schedule: ${told}`}
    >
      {parts.map((part) => {
        const x = part.start * STRIP_WIDTH;
        const width = part.share * STRIP_WIDTH;
        return (
          <g key={part.start}>
            <title>{`${part.name}, ${stated(part.hours, "h")}`}</title>
            <rect
              className={`day-${part.activity}`}
              x={x}
              y={0}
              width={Math.max(1, width - 1)}
              height={STRIP_HEIGHT}
            />
            {width > 7 * part.name.length + 8 && (
              <text x={x + 6} y={19} className={`day-name day-name-${part.activity}`}>
                {part.name}
              </text>
            )}
          </g>
        );
      })}
      {[0, 6, 12, 18, 24].map((hour) => (
        <text
          key={hour}
          x={(hour / 24) * STRIP_WIDTH}
          y={STRIP_HEIGHT + 13}
          textAnchor={hour === 0 ? "start" : hour === 24 ? "end" : "middle"}
          className="small"
        >
          {hour === 24 ? "24 h" : hour}
        </text>
      ))}
    </svg>
  );
}
