import { act, renderHook } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { merge, useFollowing, useTyped } from "./typed";

describe("bringing typed text and a newer version together", () => {
  it("keeps what was typed and takes the rest", () => {
    const base = { name: "a", hottest: "28", coldest: "5" };
    const mine = { name: "mine", hottest: "35", coldest: "5" };
    const theirs = { name: "a", hottest: "31", coldest: "-5" };
    expect(merge(base, mine, theirs)).toEqual({
      text: { name: "mine", hottest: "35", coldest: "-5" },
      clashes: ["hottest"],
      taken: ["coldest"],
    });
  });

  it("sees no clash where both typed the same", () => {
    expect(merge({ a: "1" }, { a: "2" }, { a: "2" }).clashes).toEqual([]);
  });
});

describe("a form over a stored thing", () => {
  const start = { stored: { name: "a", hottest: "28" }, version: 1 };

  it("follows what is stored while nothing is typed", () => {
    const { result, rerender } = renderHook((p) => useTyped(p.stored, p.version), {
      initialProps: start,
    });
    rerender({ stored: { name: "b", hottest: "28" }, version: 2 });
    expect(result.current.text.name).toBe("b");
    expect(result.current.dirty).toBe(false);
  });

  it("never loses a letter to another tab, and names the clash until it is settled", () => {
    const { result, rerender } = renderHook((p) => useTyped(p.stored, p.version), {
      initialProps: start,
    });
    act(() => result.current.setText({ name: "a", hottest: "35" }));
    rerender({ stored: { name: "b", hottest: "31" }, version: 2 });
    expect(result.current.text).toEqual({ name: "b", hottest: "35" });
    expect(result.current.clashes).toEqual(["hottest"]);
    expect(result.current.changed).toEqual(["hottest"]);
    expect(result.current.version).toBe(2);
    act(() => result.current.setText({ name: "b", hottest: "35,0" }));
    act(() => result.current.settle({ name: "b", hottest: "35" }, 2));
    expect(result.current.dirty).toBe(false);
    act(() => result.current.setText({ name: "b", hottest: "36" }));
    rerender({ stored: { name: "b", hottest: "31" }, version: 3 });
    act(() => result.current.take("hottest"));
    expect(result.current.text.hottest).toBe("31");
    expect(result.current.clashes).toEqual([]);
    expect(result.current.dirty).toBe(false);
  });
});

it("keeps what is typed while a form is being stored", () => {
  const { result, rerender } = renderHook((p) => useTyped(p.stored, p.version), {
    initialProps: { stored: { name: "a", words: "ten" }, version: 1 },
  });
  act(() => result.current.setText({ name: "b", words: "ten" }));
  const { settle } = result.current; // of the moment in which it was sent
  act(() => result.current.setText({ name: "bc", words: "ten" }));
  rerender({ stored: { name: "b", words: "eleven" }, version: 2 });
  act(() => settle({ name: "b", words: "eleven" }, 2));
  expect(result.current.text).toEqual({ name: "bc", words: "eleven" });
  expect(result.current.changed).toEqual(["name"]);
  expect([result.current.clashes, result.current.taken]).toEqual([[], []]);
});

describe("a form over a stored thing without a version", () => {
  it("keeps the field that was typed into and lets the others follow", () => {
    const { result, rerender } = renderHook((stored) => useFollowing(stored), {
      initialProps: { along: "5", across: "7" },
    });
    act(() => result.current[1]({ ...result.current[0], along: "20" }));
    rerender({ along: "30", across: "12" });
    expect(result.current[0]).toEqual({ along: "20", across: "12" });
  });
});
