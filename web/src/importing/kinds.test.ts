import { expect, it } from "vitest";

import { kindOf } from "./kinds";

it.each([
  ["a.json", '{"name": "x", "lines": [], "parts": []}', "plans"],
  ["a.json", '{"format": "cobblewort-plans/1", "plans": []}', "plans"],
  ["a.json", '{"format": "cobblewort-parts/1", "parts": []}', "parts"],
  ["a.json", "[]", "parts"],
  ["A.CSV", "id,kind", "parts"],
  ["a.zip", "", "workspace"],
  ["a.json", "{", "plans"],
  ["a.txt", "hello", "unknown"],
  ["a.json", "3", "unknown"],
])("%s with %s is %s", (name, text, kind) => {
  expect(kindOf(name, text)).toBe(kind);
});
