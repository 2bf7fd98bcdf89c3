import { expect, test } from "vitest";

import { EMPTY, transferFrom, transferWords, textOfTransfer, type TransferText } from "./transfer";
import { read } from "../../../testing/reports";

const FILES: TransferText = {
  ...EMPTY,
  text: "A rehearsal",
  source: "storage",
  target: "network",
  amount_gb: "27,6",
  within_min: "20",
};

test("what was typed becomes a flow, and a flow what can be typed", () => {
  const transfer = transferFrom(FILES, new Set(), null);
  if ("wrong" in transfer) throw new Error(transfer.wrong);
  expect(transfer).toMatchObject({
    id: "a-rehearsal",
    amount_gb: 27.6,
    within_min: 20,
    stream_mb_s: null,
  });
  expect(transferFrom(textOfTransfer(transfer), new Set(["a-rehearsal"]), transfer)).toEqual(
    transfer,
  );
  expect(read(transferWords(transfer))).toBe("27.6 GB within 20 min, from storage to network");
});

test("a stream has a rate and no deadline", () => {
  const text = {
    ...FILES,
    kind: "stream" as const,
    stream_mb_s: "0.192",
    at_once: "16",
    hours_a_day: "2.5",
  };
  const transfer = transferFrom(text, new Set(["a-rehearsal"]), null);
  expect(transfer).toMatchObject({
    id: "a-rehearsal-2",
    stream_mb_s: 0.192,
    at_once: 16,
    within_min: null,
    amount_gb: null,
  });
});

test.each([
  [{ text: "" }, "Name: enter one, for example “rehearsal to the office”."],
  [{ amount_gb: "much" }, "Amount each time: enter a number above 0, for example 27.6"],
  [{ within_min: "soon" }, "for example 20, or leave it empty (got soon)."],
  [{ target: "storage" as const }, "different source and target"],
  [{ kind: "stream" as const, at_once: "1.5", stream_mb_s: "1" }, "whole number from 1 to 1000"],
  [{ kind: "stream" as const, stream_mb_s: "-1" }, "Rate of one stream: "],
])("what is wrong is said in a sentence: %o", (change, told) => {
  const read = transferFrom({ ...FILES, ...change }, new Set(), null);
  expect("wrong" in read && read.wrong).toContain(told);
});
