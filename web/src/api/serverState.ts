/** Whether the server answers: told to the page by every request that is made. */
import { useSyncExternalStore } from "react";

export interface ServerState {
  /** A request failed, or has waited too long, and none has been answered since. */
  silent: boolean;
  answeredAt: Date | null;
}

const PATIENCE_MS = 3000;

let state: ServerState = { silent: false, answeredAt: null };
let silentAt = 0;
const listeners = new Set<() => void>();

function tell(next: ServerState) {
  if (next.silent === state.silent && next.silent) return;
  state = next;
  listeners.forEach((listener) => listener());
}

/** Notes that a request goes out; call the result with true once it is answered, with false where it
 * failed, and with null where the page gave it up itself. */
export function asked(): (answered: boolean | null) => void {
  const began = performance.now();
  const silent = () => {
    silentAt = performance.now();
    tell({ ...state, silent: true });
  };
  const late = setTimeout(silent, PATIENCE_MS);
  return (answered) => {
    clearTimeout(late);
    // What was asked before the silence may still be answered, and tells nothing of now.
    if (answered === true && (began >= silentAt || !state.silent))
      tell({ silent: false, answeredAt: new Date() });
    if (answered === false) silent();
  };
}

export function useServerState(): ServerState {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => state,
  );
}
