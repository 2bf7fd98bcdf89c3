import { describe, expect, it } from "vitest";

import { actionFor, type KeyAction } from "./keys";

const actions: KeyAction[] = [
  { keys: ["x"], shown: "x", what: "preview", run: () => undefined },
  { keys: ["1", "2"], shown: "1 2", what: "margins", run: () => undefined },
];

function press(key: string, target: EventTarget, init: KeyboardEventInit = {}): KeyboardEvent {
  const event = new KeyboardEvent("keydown", { key, ...init });
  Object.defineProperty(event, "target", { value: target });
  return event;
}

describe("keys of the workbench", () => {
  it("find their action", () => {
    expect(actionFor(actions, press("2", document.body))?.what).toBe("margins");
    expect(actionFor(actions, press("q", document.body))).toBeUndefined();
  });

  it("do nothing while somebody types", () => {
    for (const tag of ["input", "textarea", "select"])
      expect(actionFor(actions, press("x", document.createElement(tag)))).toBeUndefined();
  });

  it("leave the browser's own combinations alone", () => {
    for (const held of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }])
      expect(actionFor(actions, press("x", document.body, held))).toBeUndefined();
  });
});
