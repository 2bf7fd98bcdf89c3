import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";

import { client, dataOf } from "../api/client";
import { copiesQuery } from "../api/queries";
import { focusSoon } from "../ui/focusSoon";

/** Copies that were kept before a restore or an update, each to be restored in turn. */
export function KeptCopies() {
  const copies = useQuery(copiesQuery);
  const queries = useQueryClient();
  const [asking, setAsking] = useState<string | null>(null);
  const restore = useMutation({
    mutationFn: async (name: string) =>
      dataOf(
        await client.POST("/api/workspace/copies/{name}/restore", { params: { path: { name } } }),
      ),
    onSuccess: async () => {
      setAsking(null);
      focusSoon(".copy-restored");
      await queries.invalidateQueries();
    },
  });
  if (!copies.data || copies.data.length === 0) return null;
  return (
    <>
      <h3>Kept copies</h3>
      <p className="soft">
        Before a restore or an update, the workspace is kept beside the data file. The newest ten
        copies stay.
      </p>
      {restore.error && (
        <p role="alert" className="tone-problem">
          {restore.error.message}
        </p>
      )}
      {restore.data && (
        <p role="status" className="copy-restored" tabIndex={-1}>
          Restored. The former workspace is kept as <code>{restore.data.copy}</code>.
        </p>
      )}
      <ul className="away-list">
        {copies.data.map((copy) => (
          <li key={copy.name}>
            <span>
              <strong>{new Date(copy.made_at).toLocaleString()}</strong>{" "}
              <span className="soft">
                {copy.size_mb} MB, <code>{copy.name}</code>
              </span>
            </span>
            {asking === copy.name ? (
              <span role="alert">
                Replace the workspace?{" "}
                <Button
                  variant=""
                  size="sm"
                  className="copy-cancel"
                  onClick={() => {
                    setAsking(null);
                    focusSoon(".copy-restore");
                  }}
                >
                  Cancel
                </Button>{" "}
                <Button
                  variant=""
                  size="sm"
                  className="tone-problem"
                  disabled={restore.isPending}
                  onClick={() => restore.mutate(copy.name)}
                >
                  Restore this copy
                </Button>
              </span>
            ) : (
              <Button
                variant=""
                size="sm"
                className="copy-restore"
                aria-label={`Restore ${copy.name}`}
                onClick={() => {
                  setAsking(copy.name);
                  focusSoon(".copy-cancel");
                }}
              >
                Restore…
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
