import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";

import { kitTextQuery } from "../api/queries";
import { Failure, Loading } from "../ui/States";
import { useBench } from "./bench";

type Form = "txt" | "csv";

/** The kit as a list to take along: shown, copied, or saved. */
export function KitExport({ onClose }: { onClose: () => void }) {
  const { view } = useBench();
  const [form, setForm] = useState<Form>("txt");
  const [copied, setCopied] = useState("");
  const text = useQuery(kitTextQuery(view.id, view.version, form));
  const id = useId();
  const copy = async (list: string) => {
    try {
      await navigator.clipboard.writeText(list);
      setCopied("Copied.");
    } catch {
      setCopied("The browser did not allow it; select the text and copy it by hand.");
    }
  };
  return (
    <Modal show size="lg" onHide={onClose} aria-labelledby={`${id}-title`}>
      <Modal.Header closeButton>
        <Modal.Title id={`${id}-title`} as="h2" className="fs-5">
          The kit as a list
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <div className="aspect-bar" role="group" aria-label="Form">
          {(["txt", "csv"] as const).map((entry) => (
            <Button
              key={entry}
              variant=""
              size="sm"
              aria-pressed={form === entry}
              onClick={() => setForm(entry)}
            >
              {entry === "txt" ? "Text" : "CSV, for a spreadsheet"}
            </Button>
          ))}
        </div>
        {text.isPending && <Loading what="the kit" />}
        {text.isError && <Failure error={text.error} retry={() => void text.refetch()} />}
        {text.data !== undefined && (
          <pre className="kit-text" tabIndex={0} aria-label="The list">
            {text.data}
          </pre>
        )}
      </Modal.Body>
      <Modal.Footer>
        <span className="soft me-auto" role="status">
          {copied}
        </span>
        <a
          className="btn btn-sm"
          href={`/api/plans/${view.id}/kit.${form}`}
          download={`${view.plan.name}.${form}`}
        >
          Save as a file
        </a>
        <Button
          variant="primary"
          size="sm"
          disabled={text.data === undefined}
          onClick={() => void copy(text.data ?? "")}
        >
          Copy
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
