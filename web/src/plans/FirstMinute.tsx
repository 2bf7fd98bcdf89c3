import { useMutation, useQueryClient } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";

import { client, dataOf } from "../api/client";
import { plansQuery } from "../api/queries";
import { ImportDialog } from "../importing/ImportDialog";
import { Legend } from "./Legend";

/** What stands in the place of plans while there are none: three ways in, and how to read one. */
export function FirstMinute() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const begin = useMutation({
    mutationFn: async (way: "example" | "parts") =>
      way === "example"
        ? dataOf(await client.POST("/api/plans/example"))
        : dataOf(
            await client.POST("/api/plans", { body: { name: "Plan from my parts", plan: null } }),
          ),
    onSuccess: async (plan) => {
      await queries.invalidateQueries({ queryKey: plansQuery.queryKey });
      await navigate(`/plans/${plan.id}`);
    },
  });
  return (
    <section className="first-minute" aria-label="How to start">
      <h2>Know before you buy</h2>
      <p className="soft">
        Choose a board, power supply, drives, cooler and case. Each choice is checked at once: fit,
        power, heat, data, lifetime, cost and noise.
      </p>
      <div className="ways-in">
        <article>
          <h3>I know what it must do</h3>
          <p>
            Answer four questions. You get the lowest-priced kit without problems and the reason for
            each part.
          </p>
          <Button variant="primary" onClick={() => void navigate("/new")}>
            Answer four questions
          </Button>
        </article>
        <article>
          <h3>I already have the parts</h3>
          <p>
            Choose your board, power supply and case, or add custom parts with the values on their
            labels. Missing values are typical values.
          </p>
          <Button variant="" disabled={begin.isPending} onClick={() => begin.mutate("parts")}>
            Start from my parts
          </Button>
        </article>
        <article>
          <h3>I have a plan file</h3>
          <p>Import a plan, a part pack or a backup, or open an example with mistakes in it.</p>
          <ImportDialog label="Import a file" />{" "}
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
        All shipped parts are invented; typical values stand in for their kind. A plan without
        problems is no guarantee.
      </p>
    </section>
  );
}
