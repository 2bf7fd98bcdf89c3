import { act, cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";

import type { Requirement, RequirementKind } from "../api/types";
import { renderWith } from "../testing/withQueries";
import { RequirementForm } from "./RequirementForm";

afterEach(cleanup);

const KINDS: RequirementKind[] = [
  { kind: "function", id: "wifi", label: "Wi-Fi", unit: "", wants: "count", rate_unit: "" },
  { kind: "function", id: "storage", label: "room", unit: "GB", wants: "at_least", rate_unit: "" },
  { kind: "condition", id: "silent", label: "makes no sound", unit: "", wants: "", rate_unit: "" },
];

function form(onAdd: (requirement: Requirement, added: () => void) => void, taken: string[] = []) {
  renderWith(<RequirementForm taken={taken} onAdd={onAdd} />, [[["requirement-kinds"], KINDS]]);
  const choose = (value: string) =>
    fireEvent.change(screen.getByLabelText("Add a requirement"), { target: { value } });
  const type = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  return { choose, type, add: () => fireEvent.click(screen.getByText("Add requirement")) };
}

test("only what a need wants is asked for", () => {
  const { choose } = form(() => undefined);
  expect(screen.queryByText("Add requirement")).toBeNull();
  choose("condition:silent");
  expect(screen.queryByLabelText("Value")).toBeNull();
  choose("function:storage");
  expect(screen.getByLabelText("Value")).toBeTruthy();
  expect(screen.getByText("GB")).toBeTruthy();
  choose("function:wifi");
  expect(screen.getByLabelText("Count")).toBeTruthy();
});

test("a whole need is handed over, and the form is empty again", () => {
  const asked: Requirement[] = [];
  let added: () => void = () => undefined;
  const { choose, type, add } = form(
    (requirement, done) => {
      asked.push(requirement);
      added = done;
    },
    ["storage"],
  );
  choose("function:storage");
  type("Value", "250");
  type("Your own words", "a year of pictures");
  add();
  expect(asked).toMatchObject([
    { id: "storage-2", text: "a year of pictures", function: "storage", at_least: 250 },
  ]);
  // As long as nobody says that it is in, it may have to be sent again.
  expect(screen.getByLabelText<HTMLInputElement>("Value").value).toBe("250");
  act(added);
  expect(screen.queryByText("Add requirement")).toBeNull();
});

test("Enter in the words asks for it too", () => {
  const asked: Requirement[] = [];
  const { choose } = form((requirement) => asked.push(requirement));
  choose("condition:silent");
  fireEvent.keyDown(screen.getByLabelText("Your own words"), { key: "Enter" });
  expect(asked).toMatchObject([{ condition: "silent", text: "makes no sound" }]);
});

test("a wrong figure is told and nothing is lost", () => {
  const asked: Requirement[] = [];
  const { choose, type, add } = form((requirement) => asked.push(requirement));
  choose("function:storage");
  type("Value", "plenty");
  type("Your own words", "room");
  add();
  expect(screen.getByRole("alert").textContent).toMatch(/Enter a number/);
  expect(screen.getByLabelText<HTMLInputElement>("Your own words").value).toBe("room");
  expect(asked).toEqual([]);
});
