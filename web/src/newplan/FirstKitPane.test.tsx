import type { UseQueryResult } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";

import type { FirstKit, FirstKitRequest, LineReport, Plan } from "../api/types";
import { plain, report } from "../testing/reports";
import { FirstKitPane } from "./FirstKitPane";

afterEach(cleanup);

const REQUEST = { name: "x", purpose: "hub", place: {} } as FirstKitRequest;

function kit(failing: string[]): FirstKit {
  const line = {
    id: "board",
    role: "board",
    name: "Hurdle 2",
    short_name: "Hurdle 2",
    quantity: 2,
    owned: true,
  } as LineReport;
  const checked = { ...report({}), lines: [line] };
  checked.cost.lines = [{ line: "board", to_pay: "0", value: "35" }];
  return {
    plan: { name: "x" } as Plan,
    empty: { name: "x" } as Plan,
    reasons: [{ line: "board", text: plain("Already owned") }],
    failing: failing.map(plain),
    report: checked,
    cheaper: null,
    proven: true,
  };
}

const noop = () => undefined;

const answer = (more: Partial<UseQueryResult<FirstKit>>) =>
  ({ isFetching: false, isError: false, data: undefined, ...more }) as UseQueryResult<FirstKit>;

type Props = Parameters<typeof FirstKitPane>[0];

/** The pane with what was found; the rest as it is while nobody does anything. */
const pane = (found: UseQueryResult<FirstKit>, more: Partial<Props> = {}) => (
  <FirstKitPane
    request={REQUEST}
    missing=""
    cheaper={false}
    setCheaper={noop}
    onStop={noop}
    found={found}
    {...more}
  />
);

test("each line with why it was taken, what it costs and whether it is owned", () => {
  render(pane(answer({ data: kit([]) })));
  expect(screen.getByText(/No problems found/)).toBeTruthy();
  const row = screen.getByRole("row");
  expect(row.textContent).toContain("2 × Hurdle 2");
  expect(row.textContent).toContain("owned");
  expect(row.textContent).toContain("Already owned");
});

test("what fails is named, with the nearest kit below", () => {
  const data = kit(["The kit costs €90; the budget is €60."]);
  render(pane(answer({ data })));
  expect(screen.getByText(/nearest kit fails here/)).toBeTruthy();
  expect(screen.getByText(/the budget is €60/)).toBeTruthy();
});

test("what is tight is told before the kit is begun, the rest counted", () => {
  const data = kit([]);
  const findings = [1, 2, 3, 4, 5].map((n) => ({
    id: `PWR-02:${n}`,
    severity: n === 1 ? "note" : "tight",
    sentence: plain(`Snag ${n}.`),
  }));
  Object.assign(data.report, { severity: "tight", findings });
  render(pane(answer({ data })));
  expect(screen.getByText("Snag 2.")).toBeTruthy();
  expect(screen.getByText("And 1 more, shown in the plan.")).toBeTruthy();
  expect(screen.queryByText("Snag 1.")).toBeNull();
});

test("what is missing comes before an old answer", () => {
  const missing = "Choose a location.";
  render(
    <FirstKitPane
      request={null}
      missing={missing}
      cheaper={false}
      setCheaper={noop}
      onStop={noop}
      found={answer({ data: kit([]) })}
    />,
  );
  expect(screen.getByText(missing)).toBeTruthy();
  expect(screen.queryByRole("row")).toBeNull();
});

test("a search can be stopped, and begun again", () => {
  const stop = vi.fn();
  const again = vi.fn();
  const { rerender } = render(pane(answer({ isFetching: true }), { onStop: stop }));
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  expect(stop).toHaveBeenCalledOnce();
  rerender(pane(answer({ refetch: again })));
  fireEvent.click(screen.getByRole("button", { name: "Search again" }));
  expect(again).toHaveBeenCalledOnce();
});

test("it says that it is at work, and what went wrong", () => {
  const { unmount } = render(pane(answer({ isFetching: true })));
  expect(screen.getByText("Checking kits, the lowest price first…")).toBeTruthy();
  expect(screen.getByRole("region", { name: "First kit" }).getAttribute("aria-busy")).toBe("true");
  unmount();
  const found = answer({ isError: true, error: new Error("The server does not answer.") } as never);
  render(pane(found));
  expect(screen.getByText("The server does not answer.")).toBeTruthy();
});

test("a cheaper kit is named with what it saves and what is tight, and shown when asked for", () => {
  const cheap = { ...report({}), lines: [] };
  cheap.cost.total = "60";
  const data: FirstKit = {
    ...kit([]),
    cheaper: {
      plan: { name: "y" } as Plan,
      less: "28",
      sentences: [plain("It slows.")],
      report: cheap,
    },
  };
  const show = vi.fn();
  const pane = (cheaper: boolean) => (
    <FirstKitPane
      request={REQUEST}
      missing=""
      cheaper={cheaper}
      setCheaper={show}
      onStop={noop}
      found={answer({ data })}
    />
  );
  const { rerender } = render(pane(false));
  expect(screen.getByText(/less is tight: It slows\./)).toBeTruthy();
  screen.getByRole("button", { name: "Show the cheaper kit" }).click();
  expect(show).toHaveBeenCalledWith(true);
  rerender(pane(true));
  expect(screen.getByText(/without tight limits costs .*28 more/)).toBeTruthy();
  expect(screen.queryByText("2 × Hurdle 2")).toBeNull();
});
