import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";

import { kitTextQuery, type KitForm } from "../api/queries";
import { Failure, Loading } from "../ui/States";
import { useBench } from "./bench";
import { savePng } from "./savePng";

const FORMS: [KitForm, string][] = [
  ["txt", "Text"],
  ["md", "Markdown"],
  ["csv", "CSV, for a spreadsheet"],
];
const DRAWINGS = {
  margins: "Margins",
  stack: "Side view",
  above: "Top view",
  power: "Power",
  heat: "Heat",
  data: "Data",
  lifetime: "Lifetime",
  money: "Cost",
};

/** The plan on paper, as a file, as drawings; the kit as a list, shown, copied, or saved. */
export function ExportDialog({ onClose }: { onClose: () => void }) {
  const { view } = useBench();
  const [form, setForm] = useState<KitForm>("txt");
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
          Export and print
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <div className="take-out">
          <section aria-label="Paper">
            <h3>Paper</h3>
            <p className="soft">Buying list, connections, snags, drawings and assumptions.</p>
            <a className="btn btn-sm" href={`/api/plans/${view.id}/sheet.pdf?paper=a4`} download>
              Plan sheet, A4
            </a>{" "}
            <a
              className="btn btn-sm"
              href={`/api/plans/${view.id}/sheet.pdf?paper=letter`}
              download
            >
              Letter
            </a>
          </section>
          <section aria-label="File">
            <h3>File</h3>
            <p className="soft">
              Includes the parts of the plan, so that every computer gets the same result.
            </p>
            <a className="btn btn-sm" href={`/api/plans/${view.id}/plan.json`} download>
              Plan with its parts
            </a>{" "}
            <a
              className="btn btn-sm"
              href={`/api/export/plans.json?steps=true&plan=${view.id}`}
              download
            >
              with history
            </a>
          </section>
          <section aria-label="Drawings">
            <h3>Drawings</h3>
            <ul className="take-out-drawings">
              {Object.entries(DRAWINGS).map(([name, label]) => (
                <li key={name}>
                  {label}{" "}
                  <a
                    href={`/api/plans/${view.id}/drawings/${name}.svg`}
                    aria-label={`${label} as SVG`}
                    download
                  >
                    SVG
                  </a>{" "}
                  <Button
                    variant="link"
                    aria-label={`${label} as PNG`}
                    onClick={() => void savePng(view.id, name).then(setCopied)}
                  >
                    PNG
                  </Button>
                </li>
              ))}
            </ul>
          </section>
        </div>
        <h3 className="kit-list-head">Kit list</h3>
        <div className="aspect-bar" role="group" aria-label="Form">
          {FORMS.map(([entry, label]) => (
            <Button
              key={entry}
              variant=""
              size="sm"
              aria-pressed={form === entry}
              onClick={() => setForm(entry)}
            >
              {label}
            </Button>
          ))}
        </div>
        {text.isPending && <Loading what="the kit" />}
        {text.isError && !text.data && (
          <Failure error={text.error} retry={() => void text.refetch()} />
        )}
        {text.data !== undefined && (
          <pre className="kit-text" tabIndex={0} aria-label="Kit list">
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
          Save the kit list
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
