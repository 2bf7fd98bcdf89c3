import { useQueryClient } from "@tanstack/react-query";
import { useHotkeys } from "react-hotkeys-hook";
import { useNavigate } from "react-router";

import { client, dataOf } from "../api/client";
import { fixesQuery, plansQuery } from "../api/queries";
import { focusSoon } from "../ui/focusSoon";
import { BY_KEY } from "./aspects/record";
import type { Bench } from "./bench";
import { actionFor, type KeyAction } from "./keys";
import { useLetterKeys } from "../ui/keySetting";
import { KIT_ROLES } from "../ui/roles";

const AMBIENT_STEP_C = 1;

/** What each key does on this bench; none while a dialog is open. */
export function useKeys(bench: Bench | null, showSheet: () => void): KeyAction[] {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [letters] = useLetterKeys();
  const go = (address: string) => void navigate(address);
  const actions = bench ? keyActions(bench, queries, showSheet, go) : [];
  useHotkeys("mod+z", () => undo(bench), { preventDefault: true });
  useHotkeys("mod+shift+z", () => redo(bench), { preventDefault: true });
  useHotkeys("*", (event) => {
    if (document.querySelector("[role=dialog]")) return;
    if (!letters && event.key.length === 1) return;
    const action = actionFor(actions, event);
    if (!action) return;
    event.preventDefault();
    action.run(event.key);
  });
  return actions;
}

function undo(bench: Bench | null) {
  if (bench?.view.undo_label) bench.changes.act({ kind: "undo" });
}

function redo(bench: Bench | null) {
  if (bench?.view.redo_label) bench.changes.act({ kind: "redo" });
}

function keyActions(
  bench: Bench,
  queries: ReturnType<typeof useQueryClient>,
  showSheet: () => void,
  go: (address: string) => void,
): KeyAction[] {
  const { view, report, whatIf, setWhatIf } = bench;
  const findings = report.findings;

  const stepSnag = (by: number) => {
    if (findings.length === 0) return;
    const at = findings.findIndex((entry) => entry.id === bench.openSnag);
    const start = at < 0 && by < 0 ? 0 : at;
    const next = findings[(start + by + findings.length) % findings.length];
    if (next) bench.setOpenSnag(next.id);
    focusSoon(".snag.open .snag-main");
  };
  const previewFirst = async () => {
    const snag = findings.find((entry) => entry.id === bench.openSnag) ?? findings[0];
    if (!snag?.has_fixes) return;
    bench.setOpenSnag(snag.id);
    const fixes = await queries.query(fixesQuery(view.id, view.version, whatIf, snag.id));
    const first = fixes[0];
    if (first) bench.setPreview({ finding: snag.id, fix: first });
  };
  const leavePreview = () => {
    if (!bench.preview) return;
    bench.setPreview(null);
    focusSoon(".snag.open .fix-main", ".snag.open .snag-main");
  };
  const openWorking = () => {
    const snag = findings.find((entry) => entry.id === bench.openSnag)?.margin;
    const shown = report.families.find((entry) => entry.id === bench.family)?.margin;
    const figure = snag ?? shown;
    if (figure) bench.openWorking(figure);
  };
  const add = () => {
    const empty = KIT_ROLES.find(({ role }) => !report.lines.some((line) => line.role === role));
    bench.openParts(empty?.role ?? "add_on", null);
  };
  const swap = () => {
    const line = report.lines.find((entry) => entry.id === bench.chosenLine) ?? report.lines[0];
    if (line) bench.openParts(line.role, line.id);
  };
  const variant = async () => {
    const params = { path: { plan_id: view.id } };
    const copy = dataOf(await client.POST("/api/plans/{plan_id}/copy", { params }));
    await queries.invalidateQueries({ queryKey: plansQuery.queryKey });
    go(`/plans/${copy.id}`);
  };
  const moveAmbient = (by: number) => {
    const own = view.plan.place.ambient_max_c;
    const next = (whatIf.ambientC ?? own) + by;
    if (next >= -20 && next <= 70) setWhatIf({ ...whatIf, ambientC: next === own ? null : next });
  };

  return [
    { keys: ["?"], shown: "?", what: "Show the keys", run: showSheet },
    {
      keys: [...BY_KEY.keys()],
      shown: `${[...BY_KEY.keys()][0]} to ${[...BY_KEY.keys()].at(-1)}`,
      what: "Open the drawing of a margin",
      run: (key) => {
        const family = BY_KEY.get(key);
        if (family) bench.setFamily(family);
      },
    },
    { keys: ["."], shown: ".", what: "Next snag", run: () => stepSnag(1) },
    { keys: [","], shown: ",", what: "Previous snag", run: () => stepSnag(-1) },
    {
      keys: ["x"],
      shown: "x",
      what: "Preview the first fix of the open snag; Enter applies it, Esc cancels",
      run: () => void previewFirst(),
    },
    { keys: ["Escape"], shown: "Esc", what: "Close a preview", run: leavePreview },
    {
      keys: ["w"],
      shown: "w",
      what: "Show the working of the open snag or margin",
      run: openWorking,
    },
    {
      keys: ["a", "/"],
      shown: "a",
      what: "Add a part to the first empty role",
      run: add,
    },
    { keys: ["s"], shown: "s", what: "Swap the part of the chosen line", run: swap },
    {
      keys: ["["],
      shown: "[",
      what: "Lower the highest ambient by one degree",
      run: () => moveAmbient(-AMBIENT_STEP_C),
    },
    {
      keys: ["]"],
      shown: "]",
      what: "Raise the highest ambient by one degree",
      run: () => moveAmbient(AMBIENT_STEP_C),
    },
    {
      keys: ["v"],
      shown: "v",
      what: "Copy the plan as a variant and open it",
      run: () => void variant(),
    },
    {
      keys: ["b"],
      shown: "b",
      what: "Compare the plan with another plan",
      run: () => go(`/compare/${view.id}`),
    },
    {
      keys: ["k"],
      shown: "k",
      what: "Suggest kits that no other kit beats",
      run: () => go(`/plans/${view.id}/kits`),
    },
    { keys: ["z"], shown: "z or Ctrl+Z", what: "Undo", run: () => undo(bench) },
    { keys: ["Z"], shown: "Shift+Z", what: "Redo", run: () => redo(bench) },
  ];
}
