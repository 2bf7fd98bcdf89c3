import { useId } from "react";
import Form from "react-bootstrap/Form";

import type { PlanStorage } from "../../../api/types";
import { useBench } from "../../bench";

const FILE_SYSTEMS: Record<PlanStorage["file_system"], [string, string]> = {
  native: [
    "journalled, the system's own",
    "keeps owners and a journal; other computers need a driver",
  ],
  checksummed: ["with checksums", "finds rot and can undo; takes memory and processor"],
  exchange: ["exchange format", "any computer reads the disk; no owners, no journal"],
};

/** How the data disks are formatted; each change is judged at once. */
export function StorageUseForm() {
  const { view, changes } = useBench();
  const id = useId();
  const { storage_use } = view.plan;
  const set = (fields: Partial<PlanStorage>, label: string) =>
    changes.act({ kind: "patch", patch: [{ op: "set", fields: { storage_use: fields } }], label });
  return (
    <div className="storing-form">
      <Form.Group controlId={`${id}-fs`}>
        <Form.Label>File system</Form.Label>
        <Form.Select
          size="sm"
          value={storage_use.file_system}
          disabled={changes.busy}
          onChange={(event) =>
            set({ file_system: event.target.value as PlanStorage["file_system"] }, "file system")
          }
        >
          {Object.entries(FILE_SYSTEMS).map(([name, [label]]) => (
            <option key={name} value={name}>
              {label}
            </option>
          ))}
        </Form.Select>
        <Form.Text>{FILE_SYSTEMS[storage_use.file_system][1]}</Form.Text>
      </Form.Group>
      <Form.Check
        id={`${id}-encrypted`}
        label="encrypted"
        checked={storage_use.encrypted}
        disabled={changes.busy}
        onChange={(event) => set({ encrypted: event.target.checked }, "encryption")}
      />
    </div>
  );
}
