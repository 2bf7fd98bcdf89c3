import { expect, test } from "vitest";

import { EMPTY, flowFrom, flowWords, textOfFlow, type FlowText } from "./flow";

const FILES: FlowText = {
  ...EMPTY,
  text: "A rehearsal",
  source: "data",
  sink: "network",
  amount: "27,6",
  within: "20",
};

test("what was typed becomes a flow, and a flow what can be typed", () => {
  const flow = flowFrom(FILES, new Set(), null);
  if ("wrong" in flow) throw new Error(flow.wrong);
  expect(flow).toMatchObject({
    id: "a-rehearsal",
    amount_gb: 27.6,
    within_min: 20,
    stream_mb_s: null,
  });
  expect(flowFrom(textOfFlow(flow), new Set(["a-rehearsal"]), flow)).toEqual(flow);
  expect(flowWords(flow)).toBe("27.6 GB within 20 min, from where data are kept to the network");
});

test("a stream has a rate and no deadline", () => {
  const text = { ...FILES, kind: "stream" as const, stream: "0.192", atOnce: "16", hours: "2.5" };
  const flow = flowFrom(text, new Set(["a-rehearsal"]), null);
  expect(flow).toMatchObject({
    id: "a-rehearsal-2",
    stream_mb_s: 0.192,
    at_once: 16,
    within_min: null,
    amount_gb: null,
  });
});

test.each([
  [{ text: "" }, "Say what moves"],
  [{ amount: "much" }, "number of GB"],
  [{ within: "soon" }, "minutes"],
  [{ sink: "data" as const }, "another one"],
  [{ atOnce: "1.5" }, "whole number"],
  [{ kind: "stream" as const, stream: "-1" }, "MB/s"],
])("what is wrong is said in a sentence: %o", (change, told) => {
  const read = flowFrom({ ...FILES, ...change }, new Set(), null);
  expect("wrong" in read && read.wrong).toContain(told);
});
