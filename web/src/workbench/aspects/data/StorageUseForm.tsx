import { useId } from "react";
import Form from "react-bootstrap/Form";

import type { PlanStorage } from "../../../api/types";
import { useBench } from "../../bench";
import { FILE_SYSTEMS } from "../../../api/labels";

const EFFECTS: Record<PlanStorage["file_system"], string> = {
  native: "Keeps file ownership and a journal. Other computers need a driver.",
  checksummed: "Finds damaged files and restores old ones. Needs memory and processor time.",
  exchange: "Every computer reads the disk. No file ownership, no journal.",
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
          {Object.entries(FILE_SYSTEMS).map(([name, label]) => (
            <option key={name} value={name}>
              {label}
            </option>
          ))}
        </Form.Select>
        <Form.Text>{EFFECTS[storage_use.file_system]}</Form.Text>
      </Form.Group>
      <Form.Check
        id={`${id}-encrypted`}
        label="Encrypt the disks"
        checked={storage_use.encrypted}
        disabled={changes.busy}
        onChange={(event) => set({ encrypted: event.target.checked }, "encryption")}
      />
    </div>
  );
}
