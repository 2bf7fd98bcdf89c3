import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useId, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";
import { useNavigate } from "react-router";

import { client, dataOf, ProblemError } from "../api/client";
import type { components } from "../api/schema";
import { kindWord } from "../ui/kinds";
import { Cobble } from "../ui/Cobble";
import { Loading } from "../ui/States";
import { Actions } from "./Actions";
import { kindOf } from "./kinds";
import { Restore } from "./Restore";

type PlanArrival = components["schemas"]["PlanArrival"];
type Arriving = components["schemas"]["Arriving"];

/** A button for a file dialog, and the whole window as a place to drop a file on. */
export function ImportDialog({ label = "Import" }: { label?: string }) {
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  useEffect(() => {
    const over = (event: DragEvent) => {
      if (event.dataTransfer?.types.includes("Files")) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      const dropped = event.dataTransfer?.files[0];
      if (!dropped) return;
      event.preventDefault();
      setFile(dropped);
    };
    window.addEventListener("dragover", over);
    window.addEventListener("drop", drop);
    return () => {
      window.removeEventListener("dragover", over);
      window.removeEventListener("drop", drop);
    };
  }, []);
  return (
    <>
      <Button variant="" onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        className="d-none"
        aria-label="File to import"
        accept=".json,.csv,.zip,.sqlite3"
        onChange={(event) => {
          setFile(event.target.files?.[0] ?? null);
          event.target.value = "";
        }}
      />
      {file && (
        <BringInDialog
          key={`${file.name} ${file.size}`}
          file={file}
          onClose={() => setFile(null)}
        />
      )}
    </>
  );
}

function BringInDialog({ file, onClose }: { file: File; onClose: () => void }) {
  const id = useId();
  const text = useQuery({
    queryKey: ["file", file.name, file.size, file.lastModified],
    queryFn: () => (file.name.toLowerCase().endsWith(".zip") ? "" : file.text()),
    gcTime: 0,
  });
  const kind = text.data === undefined ? null : kindOf(file.name, text.data);
  return (
    <Modal show size="lg" onHide={onClose} aria-labelledby={`${id}-title`}>
      <Modal.Header closeButton>
        <Modal.Title id={`${id}-title`} as="h2" className="fs-5">
          {" "}
          Import {file.name}
        </Modal.Title>
      </Modal.Header>
      {text.isPending && (
        <Modal.Body>
          <Loading what="the file" />
        </Modal.Body>
      )}
      {kind === "unknown" && (
        <Modal.Body>
          <p role="alert">
            This file is not a plan, a part pack or a backup. Choose a .json, .csv or .zip file from
            Cobblewort.
          </p>
        </Modal.Body>
      )}
      {kind === "plans" && <Plans text={text.data ?? ""} onClose={onClose} />}
      {kind === "parts" && <Parts text={text.data ?? ""} name={file.name} onClose={onClose} />}
      {kind === "workspace" && <Restore file={file} onClose={onClose} />}
    </Modal>
  );
}

/** Every problem of a file, each with its place. */
function Problems({ error }: { error: Error }) {
  const problems = error instanceof ProblemError ? error.problem.problems : [];
  return (
    <div role="alert" className="bring-in-problems">
      <p className="tone-problem">Nothing was imported. {problems.length === 0 && error.message}</p>
      <ul>
        {problems.slice(0, 50).map((problem) => (
          <li key={problem.place + problem.text}>
            {problem.place && <code>{problem.place}</code>} {problem.text}
          </li>
        ))}
      </ul>
      {problems.length > 50 && <p>And {problems.length - 50} more.</p>}
    </div>
  );
}

function Plans({ text, onClose }: { text: string; onClose: () => void }) {
  const id = useId();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [partsToo, setPartsToo] = useState(false);
  const body = { text, name: "", with_parts: partsToo };
  const look = useQuery({
    queryKey: ["bring-in", text],
    queryFn: async () =>
      dataOf(await client.POST("/api/import/plans", { body: { ...body, dry_run: true } })),
    gcTime: 0,
    retry: false,
  });
  const take = useMutation({
    mutationFn: async () =>
      dataOf(await client.POST("/api/import/plans", { body: { ...body, dry_run: false } })),
    onSuccess: async (brought) => {
      await queries.invalidateQueries();
      onClose();
      const only = brought.length === 1 ? brought[0]?.id : null;
      if (only) await navigate(`/plans/${only}`);
    },
  });
  const error = look.error ?? take.error;
  const foreign = (look.data ?? []).flatMap((plan) => plan.parts.filter((p) => p.state === "new"));
  return (
    <>
      <Modal.Body>
        {look.isPending && <Loading what="the plans" />}
        {error && <Problems error={error} />}
        {look.data?.length === 0 && <p>The file contains no plan.</p>}
        <ul className="bring-in-list">
          {look.data?.map((plan, index) => (
            <PlanRow key={index} plan={plan} />
          ))}
        </ul>
        {foreign.length > 0 && (
          <Form.Check
            id={`${id}-parts`}
            label={`Also add ${foreign.length} new parts to Parts`}
            checked={partsToo}
            onChange={(event) => setPartsToo(event.target.checked)}
          />
        )}
      </Modal.Body>
      <Actions
        done={look.data && look.data.length > 1 ? `Import ${look.data.length} plans` : "Import"}
        disabled={!look.data || look.data.length === 0}
        busy={take.isPending}
        onDone={() => take.mutate()}
        onClose={onClose}
      />
    </>
  );
}

function PlanRow({ plan }: { plan: PlanArrival }) {
  const own = plan.parts.filter((part) => part.state !== "same");
  return (
    <li>
      <Cobble severity={plan.severity as Parameters<typeof Cobble>[0]["severity"]} />
      <span>
        <strong>{plan.name}</strong>
        {plan.steps > 0 && `, with ${plan.steps} steps of history`}.{" "}
        {plan.namesake && "A plan with this name exists and stays unchanged. "}
        {own.length === 0
          ? "All its parts are in Parts."
          : listOf(own, "new") + listOf(own, "differs")}
      </span>
    </li>
  );
}

function listOf(parts: PlanArrival["parts"], state: "new" | "differs"): string {
  const names = parts.filter((part) => part.state === state).map((part) => part.model);
  if (names.length === 0) return "";
  const told =
    names.length > 3
      ? `${names.slice(0, 3).join(", ")} and ${names.length - 3} more`
      : names.join(", ");
  return state === "new"
    ? `New parts, kept with the plan: ${told}. `
    : `Parts with other values than here, kept with the plan: ${told}. `;
}

const ARRIVAL: Record<Arriving["state"], string> = {
  new: "new",
  changes: "updates your part",
  same: "unchanged",
  clashes: "not imported, because a shipped part has this id",
};

function Parts({ text, name, onClose }: { text: string; name: string; onClose: () => void }) {
  const queries = useQueryClient();
  const look = useQuery({
    queryKey: ["bring-in", name, text],
    queryFn: async () =>
      dataOf(
        await client.POST("/api/import/parts", {
          body: { text, name, dry_run: true, with_parts: false },
        }),
      ),
    gcTime: 0,
    retry: false,
  });
  const take = useMutation({
    mutationFn: async () =>
      dataOf(
        await client.POST("/api/import/parts", {
          body: { text, name, dry_run: false, with_parts: false },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries();
      onClose();
    },
  });
  const error = look.error ?? take.error;
  const found = look.data?.parts ?? [];
  const taken = found.filter((part) => part.state === "new" || part.state === "changes");
  return (
    <>
      <Modal.Body>
        {look.isPending && <Loading what="the pack" />}
        {error && <Problems error={error} />}
        {look.data && (
          <table className="as-table">
            <thead>
              <tr>
                <th scope="col">Part</th>
                <th scope="col">Effect</th>
              </tr>
            </thead>
            <tbody>
              {found.slice(0, 300).map((part) => (
                <tr key={part.id}>
                  <td>
                    {part.maker} <strong>{part.model}</strong>{" "}
                    <span className="soft">{kindWord(part.kind)}</span>
                  </td>
                  <td>
                    {ARRIVAL[part.state]}
                    {part.state === "changes" && `: ${part.fields.slice(0, 4).join(", ")}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Modal.Body>
      <Actions
        done={taken.length === 1 ? "Import 1 part" : `Import ${taken.length} parts`}
        disabled={taken.length === 0}
        busy={take.isPending}
        onDone={() => take.mutate()}
        onClose={onClose}
      />
    </>
  );
}
