import { useState } from "react";
import Button from "react-bootstrap/Button";

import { FigureInput } from "../../../ui/FigureInput";
import { stated } from "../../../ui/numbers";
import { readNumber } from "../../../ui/readNumber";
import { shownUnit } from "../../../ui/displayUnits";
import { useFollowing } from "../../../ui/typed";
import { useBench } from "../../bench";
import { useFloorPlace } from "./floorPlace";

/** The longest side of a case that can be described. */
const MOST_MM = 2000;

/** Where the board stands in a case whose floor is drilled by hand: read, typed, or given up. */
export function FloorPlace() {
  const { report } = useBench();
  const shell = report.fit.case;
  const board = report.fit.boxes[0];
  const stand = useFloorPlace();
  if (!shell?.drilled || !board) return null;
  return (
    <FloorForm
      board={board.label}
      room={shell.room}
      placed={shell.placed}
      along={-shell.inner_x_mm}
      across={-shell.inner_y_mm}
      stand={stand}
    />
  );
}

function tenths(mm: number): string {
  return String(Math.round(mm * 10) / 10);
}

interface FormProps {
  board: string;
  room: string;
  placed: boolean;
  along: number;
  across: number;
  stand: ReturnType<typeof useFloorPlace>;
}

function FloorForm({ board, room, placed, along, across, stand }: FormProps) {
  const stored = { along: tenths(along), across: tenths(across) };
  const [typed, setTyped] = useFollowing(stored);
  const [wrong, setWrong] = useState("");
  const put = () => {
    const x_mm = readNumber(typed.along);
    const y_mm = readNumber(typed.across);
    if (!(x_mm >= 0 && x_mm <= MOST_MM && y_mm >= 0 && y_mm <= MOST_MM)) {
      setWrong(`Enter both lengths from the inner corner, up to ${stated(MOST_MM, "mm")}.`);
      return;
    }
    setWrong("");
    setTyped({ along: tenths(x_mm), across: tenths(y_mm) });
    stand({ x_mm, y_mm });
  };
  return (
    <form
      className="floor-place"
      aria-label={`Position of ${board}`}
      onSubmit={(event) => {
        event.preventDefault();
        put();
      }}
    >
      <span>
        <strong>{board}</strong>: position{room && ` in the ${room}`}
      </span>
      <Length
        label="length"
        value={typed.along}
        onChange={(text) => setTyped({ ...typed, along: text })}
      />
      <Length
        label="width"
        value={typed.across}
        onChange={(text) => setTyped({ ...typed, across: text })}
      />
      <span className="soft">from the inner corner. Drag the board, or enter values:</span>
      <Button type="submit" variant="" size="sm">
        Move
      </Button>
      {placed && (
        <Button
          variant=""
          size="sm"
          onClick={() => {
            setTyped(stored);
            stand("middle");
          }}
        >
          Move to the middle
        </Button>
      )}
      {wrong && (
        <span className="tone-problem" role="alert">
          {wrong}
        </span>
      )}
    </form>
  );
}

interface LengthProps {
  label: string;
  value: string;
  onChange: (text: string) => void;
}

function Length({ label, value, onChange }: LengthProps) {
  return (
    <span className="with-unit">
      <FigureInput
        size="sm"
        className="tabular"
        inputMode="text"
        unit="mm"
        aria-label={`${shownUnit("mm") === "in" ? "Inches" : "Millimetres"} ${label}`}
        value={value}
        onChange={onChange}
      />
      <span>
        {shownUnit("mm")} {label}
      </span>
    </span>
  );
}
