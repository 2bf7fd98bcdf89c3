import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import { client, dataOf } from "../api/client";
import { binQuery, plansQuery, workspaceQuery } from "../api/queries";
import { kindWord } from "../parts/kinds";
import { PageBar } from "../ui/PageBar";
import { Failure, Loading } from "../ui/States";
import { useTheme } from "../ui/theme";
import { useLetterKeys } from "../workbench/keySetting";
import { ImportDialog } from "./ImportDialog";
import { FiguresAndMoney } from "./FiguresAndMoney";
import { told } from "./Restore";

/** How it looks, what is put away, and everything out and in. */
export function SettingsPage() {
  const [theme, flip] = useTheme();
  const [keys, setKeys] = useLetterKeys();
  return (
    <div className="settings-page">
      <PageBar current="settings" />
      <main className="settings-body">
        <h1>Settings</h1>
        <section aria-label="How it looks and listens">
          <h2>How it looks and listens</h2>
          <Form.Check
            type="switch"
            id="night"
            label="Night bench: dark, with the same meanings"
            checked={theme === "dark"}
            onChange={flip}
          />
          <Form.Check
            type="switch"
            id="letters"
            label="Single letters, digits and signs work as keys on the workbench"
            checked={keys}
            onChange={(event) => setKeys(event.target.checked)}
          />
        </section>
        <FiguresAndMoney />
        <Workspace />
        <BinList />
      </main>
    </div>
  );
}

function Workspace() {
  const holds = useQuery(workspaceQuery);
  return (
    <section aria-label="Back-up">
      <h2>Back-up</h2>
      {holds.data && <p>This workspace holds {told(holds.data)}.</p>}
      <div className="settings-row">
        <a className="btn btn-primary" href="/api/workspace/archive" download>
          Save everything as one file
        </a>
        <ImportDialog label="Restore from a file, or bring one in" />
      </div>
      <p className="soft">
        The file holds plans with every step, your parts, these settings, and what is put away.
        Before it is restored you see what it would replace, and that is kept as a dated copy.
      </p>
      <h3>In open formats</h3>
      <ul className="settings-links">
        <li>
          <a href="/api/export/plans.json" download>
            All plans as JSON
          </a>
          , or{" "}
          <a href="/api/export/plans.json?steps=true" download>
            with every step
          </a>
        </li>
        <li>
          Your own parts as{" "}
          <a href="/api/export/parts.json" download>
            JSON
          </a>{" "}
          or{" "}
          <a href="/api/export/parts.csv" download>
            CSV
          </a>
          ; the whole cupboard as{" "}
          <a href="/api/export/parts.json?own=false" download>
            JSON
          </a>{" "}
          or{" "}
          <a href="/api/export/parts.csv?own=false" download>
            CSV
          </a>
        </li>
      </ul>
    </section>
  );
}

function BinList() {
  const away = useQuery(binQuery);
  const queries = useQueryClient();
  const [emptying, setEmptying] = useState(false);
  const refresh = () => queries.invalidateQueries();
  const bringBack = useMutation({
    mutationFn: async (thing: { kind: "plan" | "part"; id: string }) => {
      if (thing.kind === "plan") {
        const params = { path: { plan_id: thing.id } };
        dataOf(await client.POST("/api/plans/{plan_id}/restore", { params }));
      } else {
        const params = { path: { part_id: thing.id } };
        dataOf(await client.POST("/api/parts/{part_id}/restore", { params }));
      }
    },
    onSuccess: refresh,
  });
  const empty = useMutation({
    mutationFn: async (plans: string[]) => {
      dataOf(await client.POST("/api/bin/empty", { body: { plans } }));
    },
    onSuccess: async () => {
      setEmptying(false);
      await queries.invalidateQueries({ queryKey: plansQuery.queryKey });
      await refresh();
    },
  });
  const error = bringBack.error ?? empty.error;
  const plans = away.data?.plans ?? [];
  const parts = away.data?.parts ?? [];
  const things: { kind: "plan" | "part"; id: string; name: string; since: string }[] = [
    ...plans.map(({ id, name, deleted_at }) => ({
      kind: "plan" as const,
      id,
      name,
      since: `since ${new Date(deleted_at).toLocaleDateString()}`,
    })),
    ...parts.map(({ id, kind, maker, model }) => ({
      kind: "part" as const,
      id,
      name: `${maker} ${model}`,
      since: kindWord(kind),
    })),
  ];
  return (
    <section aria-label="Put away">
      <h2>Put away</h2>
      {away.isPending && <Loading what="what is put away" />}
      {away.isError && !away.data && (
        <Failure error={away.error} retry={() => void away.refetch()} />
      )}
      {error && (
        <p role="alert" className="tone-problem">
          {error.message}
        </p>
      )}
      {away.data && things.length === 0 && (
        <p className="soft">Nothing is put away. Deleted plans and parts of your own come here.</p>
      )}
      <ul className="away-list">
        {things.map((thing) => (
          <li key={`${thing.kind} ${thing.id}`}>
            <span>
              {thing.kind === "plan" ? "Plan" : "Part"} <strong>{thing.name}</strong>{" "}
              <span className="soft">{thing.since}</span>
            </span>
            <Button variant="" size="sm" onClick={() => bringBack.mutate(thing)}>
              Bring it back
            </Button>
          </li>
        ))}
      </ul>
      {plans.length > 0 &&
        (emptying ? (
          <p role="alert">
            {plans.length === 1 ? "This plan" : `These ${plans.length} plans`} and all their steps
            will be gone for good.{" "}
            <Button variant="" size="sm" onClick={() => setEmptying(false)}>
              Keep them
            </Button>{" "}
            <Button
              variant=""
              size="sm"
              className="tone-problem"
              disabled={empty.isPending}
              onClick={() => empty.mutate(plans.map((plan) => plan.id))}
            >
              Delete for good
            </Button>
          </p>
        ) : (
          <Button variant="" size="sm" onClick={() => setEmptying(true)}>
            Empty…
          </Button>
        ))}
    </section>
  );
}
