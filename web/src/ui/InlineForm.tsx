import type { ReactNode } from "react";
import Button from "react-bootstrap/Button";

interface Props {
  /** What the button says that takes the fields over. */
  done: string;
  busy: boolean;
  /** What is wrong with the fields, in a sentence; empty while nothing is. */
  wrong: string;
  onDone: () => void;
  onLeave: () => void;
  children: ReactNode;
}

/** A few fields in place, with what takes them over and what leaves them. */
export function InlineForm({ done, busy, wrong, onDone, onLeave, children }: Props) {
  return (
    <form
      className="inline-form"
      onSubmit={(event) => {
        event.preventDefault();
        onDone();
      }}
    >
      {children}
      <div className="form-actions">
        <Button type="submit" variant="primary" size="sm" disabled={busy}>
          {done}
        </Button>
        <Button variant="" size="sm" onClick={onLeave}>
          Cancel
        </Button>
        {wrong && (
          <span role="alert" className="tone-problem">
            {wrong}
          </span>
        )}
      </div>
    </form>
  );
}
