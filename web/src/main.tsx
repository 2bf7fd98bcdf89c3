import "./styles/app.scss";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ComponentType, StrictMode, useSyncExternalStore } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";

import { ProblemError } from "./api/client";
import { NewPlanPage } from "./newplan/NewPlanPage";
import { SettingsPage } from "./settings/SettingsPage";
import { PartsPage } from "./parts/PartsPage";
import { PlansPage } from "./plans/PlansPage";
import { RuleBookPage } from "./rulebook/RuleBookPage";
import { ComparePage } from "./compare/ComparePage";
import { NotFound } from "./ui/NotFound";
import { followShown, shownNow } from "./ui/displayUnits";
import { begin } from "./ui/preferences";
import { ServerStrip } from "./ui/ServerStrip";
import { WorkbenchPage } from "./workbench/WorkbenchPage";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) =>
        !(error instanceof ProblemError && error.problem.status >= 400) && count < 2,
    },
  },
});

/** A page, drawn anew with all that is on it when other units are chosen, here or in another tab. */
function InUnits({ page: Page }: { page: ComponentType }) {
  useSyncExternalStore(followShown, shownNow);
  return <Page />;
}

const router = createBrowserRouter([
  { path: "/", element: <InUnits page={PlansPage} /> },
  { path: "/new", element: <InUnits page={NewPlanPage} /> },
  { path: "/parts/:partId?", element: <InUnits page={PartsPage} /> },
  { path: "/compare/:ids?", element: <InUnits page={ComparePage} /> },
  { path: "/rules", element: <InUnits page={RuleBookPage} /> },
  { path: "/settings", element: <InUnits page={SettingsPage} /> },
  { path: "/plans/:planId", element: <InUnits page={WorkbenchPage} /> },
  { path: "*", element: <NotFound /> },
]);

const LONGEST_WAIT_MS = 400;
// What is preferred is known in this browser from the second time on; the first time it is waited
// for, a little, so that no figure changes its unit under the eye.
const begun = begin(queries);
if (localStorage.length === 0)
  await Promise.race([begun, new Promise((resolve) => setTimeout(resolve, LONGEST_WAIT_MS))]);

const root = document.getElementById("root");
if (!root) throw new Error("index.html must hold an element with id root");
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <ServerStrip />
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
