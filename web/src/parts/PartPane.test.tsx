import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";

import type { PartSheet, SheetFigure } from "../api/types";
import { renderWith } from "../testing/withQueries";
import { PartPane } from "./PartPane";
import { read } from "../testing/reports";

afterEach(cleanup);

const figure = (path: string, more: Partial<SheetFigure>): SheetFigure => ({
  path,
  group: "Draw",
  label: path,
  unit: "W",
  kind: "reading",
  nominal: null,
  low: null,
  high: null,
  basis: null,
  own: false,
  on_label: false,
  class_nominal: null,
  ...more,
});

const SHEET: PartSheet = {
  id: "B06",
  revision: 1,
  origin: "pack",
  kind: "board",
  part_class: "middle_card",
  maker: "Marlpit",
  model: "Hurdle 2",
  summary: "Middle card",
  price: "47",
  currency: "EUR",
  cautions: ["Keep it dry."],
  figures: [
    figure("Peak", { nominal: 6.2, low: 5.58, high: 6.82, basis: "datasheet", own: true }),
    figure("Idle", { nominal: 2.7, low: 2, high: 3.4, basis: "typical", class_nominal: 2.7 }),
    figure("Start", {}),
  ],
};

function pane(sheet: PartSheet) {
  const known = [[["sheet", sheet.id], sheet]] as const;
  return renderWith(<PartPane id={sheet.id} onBin={() => undefined} />, [...known]);
}

test("a part of the pack is read: figure, basis and band, and nothing that nobody states", () => {
  pane(SHEET);
  const peak = screen.getByRole("row", { name: /Peak/ });
  expect(read(peak.textContent)).toBe("Peak6.2 Wdatasheet5.58 to 6.82");
  expect(screen.getByRole("row", { name: /Idle/ }).textContent).toContain("typical value");
  expect(screen.queryByText("Start")).toBeNull();
  expect(screen.getByText("Keep it dry.")).toBeTruthy();
  expect(screen.queryByRole("textbox")).toBeNull();
});

test("a part of one's own is a form; what nobody states can be filled in", () => {
  pane({ ...SHEET, id: "own-1", origin: "custom" });
  expect(read(screen.getByLabelText<HTMLInputElement>("Peak").value)).toBe("6.2");
  const idle = screen.getByLabelText<HTMLInputElement>("Idle");
  expect([idle.value, idle.placeholder]).toEqual(["", "typical: 2.7"]);
  expect(screen.getByText(/Optional values not yet known/)).toBeTruthy();
  expect(screen.getByText<HTMLButtonElement>("Save").disabled).toBe(true);
});

test("typing makes it worth saving, and can be left as it was", () => {
  pane({ ...SHEET, id: "own-1", origin: "custom" });
  const idle = screen.getByLabelText<HTMLInputElement>("Idle");
  fireEvent.change(idle, { target: { value: "2.4" } });
  expect(screen.getByLabelText("Basis: Idle")).toBeTruthy();
  expect(screen.getByText<HTMLButtonElement>("Save").disabled).toBe(false);
  fireEvent.click(screen.getByText("Discard"));
  expect(read(idle.value)).toBe("");
  expect(screen.getByText<HTMLButtonElement>("Save").disabled).toBe(true);
});

test("what is no number is told beside its field, and the server is not asked", () => {
  pane({ ...SHEET, id: "own-1", origin: "custom" });
  fireEvent.change(screen.getByLabelText("Idle"), { target: { value: "some" } });
  fireEvent.click(screen.getByText("Save"));
  expect(screen.getByText(/Enter a number/)).toBeTruthy();
  expect(screen.getByRole("alert").textContent).toContain("One field is to correct");
});
