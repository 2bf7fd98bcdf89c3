import "./styles/app.scss";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ComponentType, StrictMode, useSyncExternalStore } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";

import { ProblemError } from "./api/client";
import { Frame } from "./ui/Frame";
import { NoPage, NotFound } from "./ui/NotFound";
import { followShown, shownNow } from "./ui/displayUnits";
import { begin } from "./ui/preferences";
import { ServerStrip } from "./ui/ServerStrip";
import { Loading } from "./ui/States";

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

const PAGES: Record<string, () => Promise<ComponentType>> = {
  "/": async () => (await import("./plans/PlansPage")).PlansPage,
  "/new": async () => (await import("./newplan/NewPlanPage")).NewPlanPage,
  "/parts/:partId?": async () => (await import("./parts/PartsPage")).PartsPage,
  "/compare/:ids?": async () => (await import("./compare/ComparePage")).ComparePage,
  "/rules": async () => (await import("./rulebook/RuleBookPage")).RuleBookPage,
  "/settings": async () => (await import("./settings/SettingsPage")).SettingsPage,
  "/plans/:planId/kits": async () => (await import("./kits/KitsPage")).KitsPage,
  "/plans/:planId": async () => (await import("./workbench/WorkbenchPage")).WorkbenchPage,
};

const router = createBrowserRouter([
  {
    Component: Frame,
    ErrorBoundary: NoPage,
    HydrateFallback: () => <Loading what="the page" />,
    children: [
      ...Object.entries(PAGES).map(([path, load]) => ({
        path,
        lazy: async () => {
          const page = await load();
          return { Component: () => <InUnits page={page} /> };
        },
      })),
      { path: "*", element: <NotFound /> },
    ],
  },
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

// The other pages come once this one is there, so that they open even while the server is away.
const AT_LEISURE_MS = 2000;
setTimeout(() => {
  for (const load of Object.values(PAGES)) load().catch(() => undefined);
}, AT_LEISURE_MS);
