import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";

import type { Severity } from "../api/types";
import { Cobble } from "./Cobble";

afterEach(cleanup);

const WORDS: [Severity, string][] = [
  ["problem", "Problem"],
  ["tight", "Tight"],
  ["note", "Note"],
  ["ok", "OK"],
];

describe("a cobble mark", () => {
  it.each(WORDS)("says its word to a screen reader: %s", (severity, word) => {
    render(<Cobble severity={severity} />);
    expect(screen.getByRole("img", { name: word })).toBeTruthy();
  });

  it("differs by shape, not by colour alone", () => {
    const shapes = WORDS.map(([severity]) => {
      const { container, unmount } = render(<Cobble severity={severity} />);
      const shape = [...container.querySelectorAll("path")]
        .map((path) => path.getAttribute("d"))
        .join();
      unmount();
      return shape;
    });
    expect(new Set(shapes).size).toBe(4);
  });

  it("is never smaller than 16 px", () => {
    const { container } = render(<Cobble severity="ok" size={8} />);
    expect(container.querySelector("svg")?.getAttribute("width")).toBe("16");
  });

  it("keeps still where its word stands beside it", () => {
    render(<Cobble severity="tight" silent />);
    expect(screen.queryByRole("img")).toBeNull();
  });
});
