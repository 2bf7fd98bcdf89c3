import { useMutation, useQueryClient } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";

import { client, dataOf } from "../api/client";
import { plansQuery } from "../api/queries";
import { ImportDialog } from "../settings/ImportDialog";
import { Legend } from "./Legend";

/** What stands in the place of plans while there are none: three ways in, and how to read one. */
export function FirstMinute() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const begin = useMutation({
    mutationFn: async (way: "example" | "parts") =>
      way === "example"
        ? dataOf(await client.POST("/api/plans/example"))
        : dataOf(await client.POST("/api/plans", { body: { name: "From my parts", plan: null } })),
    onSuccess: async (plan) => {
      await queries.invalidateQueries({ queryKey: plansQuery.queryKey });
      await navigate(`/plans/${plan.id}`);
    },
  });
  return (
    <section className="first-minute" aria-label="How to begin">
      <h2>Know before you buy</h2>
      <p className="soft">
        Choose board, supply, drives, cooler and case. Every choice is judged at once: does it fit,
        stay powered, stay cool, and what does it cost.
      </p>
      <div className="ways-in">
        <article>
          <h3>I know what it should do</h3>
          <p>
            Four questions, and the cheapest sound kit that does it, with the reason for each part.
          </p>
          <Button variant="primary" onClick={() => void navigate("/new")}>
            Four questions
          </Button>
        </article>
        <article>
          <h3>It lies on my table</h3>
          <p>
            Choose your board, supply and case, or copy their kind and fill in what their labels
            say. What you leave out is taken from parts of their kind.
          </p>
          <Button variant="" disabled={begin.isPending} onClick={() => begin.mutate("parts")}>
            Begin from my parts
          </Button>
        </article>
        <article>
          <h3>Somebody sent me one</h3>
          <p>
            Open a plan, a part pack or a back-up. Or look round in an example with mistakes in it.
          </p>
          <ImportDialog label="Open a file" />{" "}
          <Button variant="" disabled={begin.isPending} onClick={() => begin.mutate("example")}>
            Open the example
          </Button>
        </article>
      </div>
      {begin.isError && (
        <p role="alert" className="tone-problem">
          {begin.error.message}
        </p>
      )}
      <Legend />
      <p className="soft">
        All parts in the cupboard are invented; class figures are typical ones. A plan that nothing
        stops is no promise.
      </p>
    </section>
  );
}
