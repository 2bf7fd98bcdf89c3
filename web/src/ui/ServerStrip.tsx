import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

import { client } from "../api/client";
import { useServerState } from "../api/serverState";

const AGAIN_MS = 2000;

/** Tells that the server is silent, over whatever is shown, and asks again until it answers. */
export function ServerStrip() {
  const { silent, answeredAt } = useServerState();
  const queries = useQueryClient();
  useEffect(() => {
    if (!silent) return;
    const ask = async () => {
      try {
        await client.GET("/api/workspace");
      } catch {
        return; // It is told already; the next try comes.
      }
      // The answer has ended the silence, and with it this effect: what failed is asked for anew.
      await queries.invalidateQueries();
    };
    const timer = setInterval(() => void ask(), AGAIN_MS);
    return () => clearInterval(timer);
  }, [silent, queries]);
  if (!silent) return null;
  const last = answeredAt?.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  return (
    <div className="server-strip" role="alert">
      No connection to the server. Retrying… Your input is kept.
      {last && ` Last answer at ${last}.`}
    </div>
  );
}
