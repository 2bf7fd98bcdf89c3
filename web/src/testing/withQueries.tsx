/** Renders a page part with answers already read, so that no server is asked. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactElement } from "react";
import { createMemoryRouter, RouterProvider } from "react-router";

export type Known = readonly [key: readonly unknown[], data: unknown];

export function renderWith(element: ReactElement, known: Known[], address = "/") {
  const queries = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: Infinity } },
  });
  for (const [key, data] of known) queries.setQueryData(key, data);
  const router = createMemoryRouter([{ path: "*", element }], { initialEntries: [address] });
  return render(
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  );
}
