import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import Modal from "react-bootstrap/Modal";
import { useState } from "react";

import { OWN_HEADER, ProblemError } from "../api/client";
import type { components } from "../api/schema";
import { Loading } from "../ui/States";
import { Actions } from "./Actions";

type Look = components["schemas"]["WorkspaceLook"];
type Holdings = components["schemas"]["Holdings"];

/** An archive as it is: bytes, which the generated client does not send. */
async function send(where: "inspect" | "restore", file: File): Promise<Look> {
  const answer = await fetch(`/api/workspace/${where}`, {
    method: "POST",
    body: file,
    headers: { ...OWN_HEADER, "content-type": "application/zip" },
  });
  const found: unknown = await answer.json();
  if (!answer.ok) throw new ProblemError(found as ProblemError["problem"]);
  return found as Look;
}

/** A back-up before it takes the place of everything: what it holds, and what it would replace. */
export function Restore({ file, onClose }: { file: File; onClose: () => void }) {
  const queries = useQueryClient();
  const [done, setDone] = useState<Look | null>(null);
  const look = useQuery({
    queryKey: ["archive", file.name, file.size, file.lastModified],
    queryFn: () => send("inspect", file),
    gcTime: 0,
    retry: false,
  });
  const restore = useMutation({
    mutationFn: () => send("restore", file),
    onSuccess: async (found) => {
      setDone(found);
      await queries.invalidateQueries();
    },
  });
  const error = look.error ?? restore.error;
  return (
    <>
      <Modal.Body>
        {look.isPending && <Loading what="the backup" />}
        {error && (
          <p role="alert" className="tone-problem">
            {error.message}
          </p>
        )}
        {look.data && !done && (
          <>
            <p>
              This backup{" "}
              {look.data.archive.made_at &&
                `was made on ${new Date(look.data.archive.made_at).toLocaleString()} and `}
              contains {told(look.data.archive.holds)}.
            </p>
            <ul>
              {look.data.archive.holds.plans.slice(0, 12).map((name, index) => (
                <li key={index}>{name}</li>
              ))}
            </ul>
            <p>
              It replaces the whole workspace: {told(look.data.here)}. A copy of the workspace is
              kept beside the data file.
            </p>
          </>
        )}
        {done && (
          <p role="status">
            Restored. The former workspace is kept as <code>{done.copy}</code> beside the data file.
          </p>
        )}
      </Modal.Body>
      {done ? (
        <Actions done="Done" disabled={false} busy={false} onDone={onClose} onClose={onClose} />
      ) : (
        <Actions
          done="Replace the workspace"
          disabled={!look.data}
          busy={restore.isPending}
          onDone={() => restore.mutate()}
          onClose={onClose}
        />
      )}
    </>
  );
}

export function told(holds: Holdings): string {
  const count = (number: number, one: string, many: string) =>
    `${number} ${number === 1 ? one : many}`;
  return [
    count(holds.plans.length, "plan", "plans"),
    `${count(holds.steps, "step", "steps")} of history`,
    count(holds.custom_parts, "custom part", "custom parts"),
    `${count(holds.in_bin, "plan", "plans")} in the bin`,
  ].join(", ");
}
