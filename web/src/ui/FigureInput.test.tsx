import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, expect, it, vi } from "vitest";

import { client } from "../api/client";
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

/** Two figures of one form, each stored with the other as it was drawn. */
function Pair() {
  const [text, setText] = useState({ along: "12", across: "7" });
  return (
    <>
      {(["along", "across"] as const).map((name) => (
        <FigureInput
          key={name}
          aria-label={name}
          unit="mm"
          value={text[name]}
          onChange={(typed) => setText({ ...text, [name]: typed })}
        />
      ))}
    </>
  );
}

it("loses nothing that is typed while a figure is read", async () => {
  const answers: ((value: number) => void)[] = [];
  const asked = vi.spyOn(client, "GET").mockImplementation(
    () =>
      new Promise((resolve) => {
        answers.push((value) => resolve({ data: { value }, response: new Response() } as never));
      }),
  );
  render(<Pair />);
  const [along, across] = [screen.getByLabelText("along"), screen.getByLabelText("across")];
  fireEvent.change(along, { target: { value: "1/2 in" } });
  fireEvent.blur(along);
  fireEvent.change(across, { target: { value: "75" } });
  answers[0]?.(12.7);
  await vi.waitFor(() => expect(along).toHaveProperty("value", "12.7"));
  expect(across).toHaveProperty("value", "75");
  fireEvent.change(along, { target: { value: "1 in" } });
  fireEvent.blur(along);
  fireEvent.change(along, { target: { value: "30" } });
  answers[1]?.(25.4);
  await Promise.resolve();
  expect(along).toHaveProperty("value", "30");
  asked.mockRestore();
});
