import { expect, test } from "vitest";

import { EMPTY, transferFrom, transferWords, textOfTransfer, type TransferText } from "./transfer";
import { read } from "../../../testing/reports";

const FILES: TransferText = {
  ...EMPTY,
  text: "A rehearsal",
  source: "storage",
  target: "network",
  amount: "27,6",
  within: "20",
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
  const text = { ...FILES, kind: "stream" as const, stream: "0.192", atOnce: "16", hours: "2.5" };
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
  [{ text: "" }, "Enter a name"],
  [{ amount: "much" }, "amount in GB"],
  [{ within: "soon" }, "minutes"],
  [{ target: "storage" as const }, "different source and target"],
  [{ atOnce: "1.5" }, "whole number"],
  [{ kind: "stream" as const, stream: "-1" }, "MB/s"],
])("what is wrong is said in a sentence: %o", (change, told) => {
  const read = transferFrom({ ...FILES, ...change }, new Set(), null);
  expect("wrong" in read && read.wrong).toContain(told);
});
