import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";

import { AS_PLANNED, reportQuery, type WhatIf } from "../api/queries";
import type { AspectId, PlanView, Role } from "../api/types";
import { usePlanChanges } from "../api/usePlanChanges";
import { Failure, Loading } from "../ui/States";
import { AspectPane } from "./AspectPane";
import { aspectOf } from "./aspects/record";
import { BenchContext, type Bench, type Preview } from "./bench";
import { ChangeNotice } from "../ui/ChangeNotice";
import { PartsDrawer } from "./PartsDrawer";
import { KeySheet } from "./KeySheet";
import { KitPanel } from "./KitPanel";
import { MarginPanel } from "./MarginPanel";
import { PaperHead } from "./PaperHead";
import { PhoneBar, type Pane } from "./PhoneBar";
import { PlanDetails } from "./PlanDetails";
import { SnagPanel } from "./SnagPanel";
import { TopBar } from "./TopBar";
import { useKeys } from "./useKeys";
import { useSpoken } from "./useSpoken";
import { useTitle } from "../ui/useTitle";
import { WorkingPanel } from "./WorkingPanel";

export function Workbench({ view }: { view: PlanView }) {
  const [whatIf, setWhatIf] = useState<WhatIf>(AS_PLANNED);
  const [family, setFamily] = useState<AspectId>("power");
  const [chosenLine, setChosenLine] = useState<string | null>(null);
  const [openSnag, setOpenSnag] = useState<string | null>(null);
  const [drawer, setDrawer] = useState<{ role: Role; line: string | null } | null>(null);
  const [details, setDetails] = useState(false);
  const [working, setWorking] = useState<string | null>(null);
  const [preview, setPreview] = useState<(Preview & { version: number }) | null>(null);
  const [keySheet, setKeySheet] = useState(false);
  const [pane, setPane] = useState<Pane>("margins");
  const changes = usePlanChanges(view.id);
  const report = useQuery({
    ...reportQuery(view.id, view.version, whatIf),
    placeholderData: keepPreviousData,
  });

  const bench = useMemo<Bench | null>(
    () =>
      report.data
        ? {
            view,
            report: report.data,
            whatIf,
            setWhatIf,
            changes,
            family,
            setFamily,
            chosenLine,
            setChosenLine,
            openSnag,
            setOpenSnag: (finding) => {
              setOpenSnag(finding);
              setPreview(null);
              const opened = report.data.findings.find((entry) => entry.id === finding);
              const concerned = opened && aspectOf(opened.family);
              if (concerned) setFamily(concerned);
            },
            preview: preview?.version === view.version ? preview : null,
            setPreview: (next) => setPreview(next && { ...next, version: view.version }),
            openParts: (role, line) => setDrawer({ role, line }),
            openDetails: () => setDetails(true),
            showDrawing: () => setPane("drawing"),
            openWorking: setWorking,
          }
        : null,
    [view, report.data, whatIf, changes, family, chosenLine, openSnag, preview],
  );

  useSpoken(report.data);
  useTitle(view.plan.name, report.data?.families.find((one) => one.id === family)?.label);
  const keyActions = useKeys(bench, () => setKeySheet(true));

  return (
    <div className="workbench">
      <TopBar
        view={view}
        changes={changes}
        whatIf={whatIf}
        onWhatIf={setWhatIf}
        onKeys={() => setKeySheet(true)}
      />
      <ChangeNotice changes={changes} />
      {report.isError && !report.data && (
        <Failure error={report.error} retry={() => void report.refetch()} />
      )}
      {report.isPending && <Loading what="the plan" />}
      {bench && (
        <BenchContext value={bench}>
          <PaperHead plan={view.plan} />
          <div className="bench" data-pane={pane}>
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
          <PhoneBar pane={pane} onPane={setPane} />
          {drawer && (
            <PartsDrawer role={drawer.role} line={drawer.line} onClose={() => setDrawer(null)} />
          )}
          {working !== null && (
            <WorkingPanel key={working} figure={working} onClose={() => setWorking(null)} />
          )}
          {keySheet && <KeySheet actions={keyActions} onClose={() => setKeySheet(false)} />}
          {details && <PlanDetails onClose={() => setDetails(false)} />}
        </BenchContext>
      )}
    </div>
  );
}
