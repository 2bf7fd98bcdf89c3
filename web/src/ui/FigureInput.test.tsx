import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";

import { FigureInput } from "./FigureInput";
import { PLAIN, setShown } from "./displayUnits";

afterEach(() => {
  cleanup();
  setShown(PLAIN);
});

function drawn(held: string[]) {
  const value = held.at(-1) ?? "";
  return (
    <FigureInput aria-label="along" unit="mm" value={value} onChange={(text) => held.push(text)} />
  );
}

it("reads a figure in the unit that stood beside it, whatever another tab chose since", () => {
  const held = ["12"];
  const { rerender } = render(drawn(held));
  setShown({ ...PLAIN, length: "in" });
  fireEvent.change(screen.getByLabelText("along"), { target: { value: "25.4" } });
  expect(held.at(-1)).toBe("25.4");
  rerender(drawn(held));
  expect(screen.getByLabelText("along")).toHaveProperty("value", "1");
});

it("keeps what is typed letter by letter while the unit stays", () => {
  const held = ["12"];
  const { rerender } = render(drawn(held));
  fireEvent.change(screen.getByLabelText("along"), { target: { value: "2.50" } });
  rerender(drawn(held));
  expect(screen.getByLabelText("along")).toHaveProperty("value", "2.50");
});
