/** Loading and error, as designed states of a page. */
import Button from "react-bootstrap/Button";
import type { ReactNode } from "react";

import { Cobble } from "./Cobble";

export function Loading({ what }: { what: string }) {
  return (
    <p className="loading" role="status">
      Loading {what}…
    </p>
  );
}

interface FailureProps {
  error: Error;
  retry?: () => void;
  children?: ReactNode;
}

export function Failure({ error, retry, children }: FailureProps) {
  return (
    <div className="quiet-state" role="alert">
      <Cobble severity="problem" size={26} silent />
      <strong>{error.message}</strong>
      <span>
        {retry && (
          <Button variant="" size="sm" onClick={retry}>
            Try again
          </Button>
        )}{" "}
        {children}
      </span>
    </div>
  );
}
