import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";

import { reportQuery } from "../api/queries";
import type { FamilyId, PlanView, Role } from "../api/types";
import { usePlanChanges } from "../api/usePlanChanges";
import { Failure, Loading } from "../ui/States";
import { AspectPane } from "./AspectPane";
import { BenchContext, type Bench } from "./bench";
import { ChangeNotice } from "./ChangeNotice";
import { CupboardDrawer } from "./CupboardDrawer";
import { KitPanel } from "./KitPanel";
import { MarginPanel } from "./MarginPanel";
import { PlanDetails } from "./PlanDetails";
import { SnagPanel } from "./SnagPanel";
import { TopBar } from "./TopBar";
import { WorkingPanel } from "./WorkingPanel";

const FAMILY_ORDER: FamilyId[] = ["fit", "supply", "heat", "data", "life", "cost", "noise"];

export function Workbench({ view }: { view: PlanView }) {
  const [ambientC, setAmbientC] = useState<number | null>(null);
  const [family, setFamily] = useState<FamilyId>("supply");
  const [chosenLine, setChosenLine] = useState<string | null>(null);
  const [openSnag, setOpenSnag] = useState<string | null>(null);
  const [drawer, setDrawer] = useState<{ role: Role; line: string | null } | null>(null);
  const [details, setDetails] = useState(false);
  const [working, setWorking] = useState<string | null>(null);
  const changes = usePlanChanges(view.id);
  const report = useQuery({
    ...reportQuery(view.id, view.version, ambientC),
    placeholderData: keepPreviousData,
  });

  useHotkeys("mod+z", () => view.undo_label && changes.act({ kind: "undo" }), {
    preventDefault: true,
  });
  useHotkeys("mod+shift+z", () => view.redo_label && changes.act({ kind: "redo" }), {
    preventDefault: true,
  });
  useHotkeys("w", () => {
    const snag = report.data?.findings.find((entry) => entry.id === openSnag)?.margin;
    const shown = report.data?.families.find((entry) => entry.id === family)?.margin;
    const figure = snag ?? shown;
    if (figure) setWorking(figure);
  });
  useHotkeys(["1", "2", "3", "4", "5", "6", "7"], (_, key) => {
    const chosen = FAMILY_ORDER[Number(key.keys?.[0] ?? key.hotkey) - 1];
    if (chosen) setFamily(chosen);
  });

  const bench = useMemo<Bench | null>(
    () =>
      report.data
        ? {
            view,
            report: report.data,
            ambientC,
            changes,
            family,
            setFamily,
            chosenLine,
            setChosenLine,
            openSnag,
            setOpenSnag,
            openCupboard: (role, line) => setDrawer({ role, line }),
            openDetails: () => setDetails(true),
            openWorking: setWorking,
          }
        : null,
    [view, report.data, ambientC, changes, family, chosenLine, openSnag],
  );

  return (
    <div className="workbench">
      <TopBar view={view} changes={changes} ambientC={ambientC} onAmbient={setAmbientC} />
      <ChangeNotice changes={changes} />
      {report.isError && <Failure error={report.error} retry={() => void report.refetch()} />}
      {report.isPending && <Loading what="the plan" />}
      {bench && (
        <BenchContext value={bench}>
          <div className="bench">
            <section className="bench-left" aria-label="Margins and kit">
              <MarginPanel />
              <KitPanel />
            </section>
            <main className="bench-centre" tabIndex={0} aria-label="Drawing">
              <AspectPane />
            </main>
            <section className="bench-right" aria-label="Snags">
              <SnagPanel />
            </section>
          </div>
          {drawer && (
            <CupboardDrawer role={drawer.role} line={drawer.line} onClose={() => setDrawer(null)} />
          )}
          {working !== null && (
            <WorkingPanel key={working} figure={working} onClose={() => setWorking(null)} />
          )}
          {details && <PlanDetails onClose={() => setDetails(false)} />}
        </BenchContext>
      )}
    </div>
  );
}
