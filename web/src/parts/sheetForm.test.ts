import { expect, test } from "vitest";

import type { PartSheet, SheetFigure } from "../api/types";
import { byPath, editOf, fallback, groupsOf, textOf } from "./sheetForm";

const entry = (path: string, more: Partial<SheetFigure> = {}): SheetFigure => ({
  path,
  group: "Draw",
  label: path,
  unit: "W",
  kind: "reading",
  nominal: 2.7,
  low: 2,
  high: 3.4,
  basis: "typical",
  own: false,
  on_label: false,
  class_nominal: 2.7,
  ...more,
});

const SHEET: PartSheet = {
  id: "own-1",
  revision: 3,
  origin: "custom",
  kind: "board",
  part_class: "middle_card",
  maker: "Marlpit",
  model: "Mine",
  summary: "",
  price: "40.00",
  currency: "EUR",
  cautions: [],
  figures: [
    entry("loads.own.idle"),
    entry("loads.own.peak", { own: true, nominal: 6.5, basis: "measured" }),
    entry("stack.length_mm", { group: "Size", nominal: null, class_nominal: null }),
  ],
};

test("only what the part states itself stands in its field", () => {
  const text = textOf(SHEET);
  expect(text.figures["loads.own.idle"]).toEqual({ text: "", basis: "datasheet" });
  expect(text.figures["loads.own.peak"]).toEqual({ text: "6.5", basis: "measured" });
  expect(fallback(entry("x"))).toBe("typical: 2.7");
  expect(fallback(entry("x", { class_nominal: null }))).toBe("not known");
});

test("nothing typed is nothing to send", () => {
  const read = editOf(SHEET, textOf(SHEET));
  expect(read).toEqual({ edit: { figures: {} } });
});

test("a changed figure, another basis, and an emptied field", () => {
  const text = textOf(SHEET);
  text.figures["loads.own.idle"] = { text: " 2,5 ", basis: "estimate" };
  text.figures["loads.own.peak"] = { text: "", basis: "measured" };
  text.price = "";
  text.currency = " gbp";
  const read = editOf(SHEET, text);
  expect("edit" in read && read.edit.price).toBeNull();
  expect("edit" in read && read.edit.currency).toBe("GBP");
  expect("edit" in read && read.edit.figures).toEqual({
    "loads.own.idle": { nominal: 2.5, basis: "estimate" },
    "loads.own.peak": null,
  });
  const rested = textOf(SHEET);
  rested.figures["loads.own.peak"] = { text: "6.5", basis: "estimate" };
  const changed = editOf(SHEET, rested);
  expect("edit" in changed && changed.edit.figures).toEqual({
    "loads.own.peak": { nominal: 6.5, basis: "estimate" },
  });
});

test("what is no number is told beside its field, all at once", () => {
  const text = textOf(SHEET);
  text.figures["loads.own.idle"] = { text: "about two", basis: "estimate" };
  text.price = "-3";
  text.model = "  ";
  const read = editOf(SHEET, text);
  expect("wrong" in read && Object.keys(read.wrong)).toEqual(["loads.own.idle", "price", "model"]);
});

test("problems of the server find their fields", () => {
  const found = byPath(
    [
      { place: "figures.loads.own.peak", text: "must not be negative" },
      { place: "figures.loads.own", text: "idle, working and peak must rise" },
      { place: "figures.elsewhere", text: "is wrong" },
      { place: "body.price", text: "too many digits" },
    ],
    SHEET,
  );
  expect(found.fields).toEqual({
    "loads.own.peak": "must not be negative",
    price: "too many digits",
  });
  expect(found.rest).toEqual(["Idle, working and peak must rise.", "Elsewhere: is wrong."]);
});

test("figures stand under their headings", () => {
  expect(groupsOf(SHEET.figures).map(([group, of]) => [group, of.length])).toEqual([
    ["Draw", 2],
    ["Size", 1],
  ]);
});
