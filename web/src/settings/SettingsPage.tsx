import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import { client, dataOf } from "../api/client";
import { binQuery, plansQuery, workspaceQuery } from "../api/queries";
import { kindWord } from "../ui/kinds";
import { PageBar } from "../ui/PageBar";
import { Failure, Loading } from "../ui/States";
import { useTheme } from "../ui/theme";
import { useLetterKeys } from "../ui/keySetting";
import { ImportDialog } from "../importing/ImportDialog";
import { FiguresAndMoney } from "./FiguresAndMoney";
import { KeptCopies } from "./KeptCopies";
import { told } from "../importing/Restore";
import { useTitle } from "../ui/useTitle";

/** How it looks, the bin, and everything out and in. */
export function SettingsPage() {
  useTitle("Settings");
  const [theme, flip] = useTheme();
  const [keys, setKeys] = useLetterKeys();
  return (
    <div className="settings-page">
      <PageBar current="settings" />
      <main className="settings-body">
        <h1>Settings</h1>
        <section aria-label="Appearance and keys">
          <h2>Appearance and keys</h2>
          <Form.Check
            type="switch"
            id="night"
            label="Dark theme"
            checked={theme === "dark"}
            onChange={flip}
          />
          <Form.Check
            type="switch"
            id="letters"
            label="Use single letters, digits and signs as keyboard shortcuts"
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
    <section aria-label="Backup">
      <h2>Backup</h2>
      {holds.data && <p>This workspace contains {told(holds.data)}.</p>}
      <div className="settings-row">
        <a className="btn btn-primary" href="/api/workspace/archive" download>
          Export the workspace
        </a>
        <ImportDialog label="Import or restore a file" />
      </div>
      <p className="soft">
        The file contains all plans with their history, your custom parts, these settings and the
        bin. Before a restore you see what it replaces; a copy is kept.
      </p>
      <KeptCopies />
      <h3>Open formats</h3>
      <ul className="settings-links">
        <li>
          <a href="/api/export/plans.json" download>
            All plans as JSON
          </a>
          , or{" "}
          <a href="/api/export/plans.json?steps=true" download>
            with history
          </a>
        </li>
        <li>
          Custom parts as{" "}
          <a href="/api/export/parts.json" download>
            JSON
          </a>{" "}
          or{" "}
          <a href="/api/export/parts.csv" download>
            CSV
          </a>
          ; all parts as{" "}
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
    <section aria-label="Bin">
      <h2>Bin</h2>
      {away.isPending && <Loading what="the bin" />}
      {away.isError && !away.data && (
        <Failure error={away.error} retry={() => void away.refetch()} />
      )}
      {error && (
        <p role="alert" className="tone-problem">
          {error.message}
        </p>
      )}
      {away.data && things.length === 0 && (
        <p className="soft">The bin is empty. Deleted plans and custom parts appear here.</p>
      )}
      <ul className="away-list">
        {things.map((thing) => (
          <li key={`${thing.kind} ${thing.id}`}>
            <span>
              {thing.kind === "plan" ? "Plan" : "Part"} <strong>{thing.name}</strong>{" "}
              <span className="soft">{thing.since}</span>
            </span>
            <Button variant="" size="sm" onClick={() => bringBack.mutate(thing)}>
              Restore
            </Button>
          </li>
        ))}
      </ul>
      {plans.length > 0 &&
        (emptying ? (
          <p role="alert">
            Delete {plans.length === 1 ? "1 plan" : `${plans.length} plans`} permanently? This also
            deletes the history and cannot be undone.{" "}
            <Button variant="" size="sm" onClick={() => setEmptying(false)}>
              Cancel
            </Button>{" "}
            <Button
              variant=""
              size="sm"
              className="tone-problem"
              disabled={empty.isPending}
              onClick={() => empty.mutate(plans.map((plan) => plan.id))}
            >
              Delete permanently
            </Button>
          </p>
        ) : (
          <Button variant="" size="sm" onClick={() => setEmptying(true)}>
            Empty the bin…
          </Button>
        ))}
    </section>
  );
}
