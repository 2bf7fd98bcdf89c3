import { FIELDS } from "../../../api/labels";
import type { PlanStorage } from "../../../api/types";
import { AtOnce } from "../../AtOnce";
import { useBench } from "../../bench";

const EFFECTS: Record<PlanStorage["file_system"], string> = {
  native:
    "Keeps file ownership and a journal. Other computers need a driver. If formatting stops, choose the system’s second file system.",
  checksummed: "Finds damaged files and restores old ones. Needs memory and processor time.",
  exchange: "Every computer reads the disk. No file ownership, no journal.",
};

/** How the data disks are formatted; each change is judged at once. */
export function StorageUseForm() {
  const { storage_use } = useBench().view.plan;
  return (
    <div className="storing-form">
      <AtOnce
        form="storage_use"
        rows={FIELDS.storage_use}
        names={["file_system", "read_elsewhere", "encrypted"]}
        of={storage_use}
      />
      <p className="soft">{EFFECTS[storage_use.file_system]}</p>
    </div>
  );
}
