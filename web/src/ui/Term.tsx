import { useId, useState, type ReactNode } from "react";
import OverlayTrigger from "react-bootstrap/OverlayTrigger";
import Popover from "react-bootstrap/Popover";

import { TERMS, type TermId } from "./terms";

/** One of our words, explained where it stands: by hover, by focus, and by touch. */
export function Term({ of, children }: { of: TermId; children: ReactNode }) {
  const id = useId();
  const [open, setOpen] = useState(false);
  return (
    <OverlayTrigger
      show={open}
      onToggle={setOpen}
      trigger={["hover", "focus", "click"]}
      placement="auto"
      overlay={
        <Popover id={id}>
          <Popover.Body>{TERMS[of]}</Popover.Body>
        </Popover>
      }
    >
      <button
        type="button"
        className="btn-plain term"
        onKeyDown={(event) => {
          if (event.key === "Escape" && open) {
            event.stopPropagation();
            setOpen(false);
          }
        }}
      >
        {children}
      </button>
    </OverlayTrigger>
  );
}
