import { useState } from "react";
import Button from "react-bootstrap/Button";

import type { RetentionBackup } from "../../../api/types";
import { Cobble } from "../../../ui/Cobble";
import { Fields } from "../../../ui/Fields";
import { freeId, valuesOf, type FieldText } from "../../../ui/fieldText";
import { InlineForm } from "../../../ui/InlineForm";
import { duration } from "../../../ui/numbers";
import { useBench } from "../../bench";
import { BACKUP_PLACES, FIELDS } from "../../../api/labels";

const PLACES = (Object.keys(BACKUP_PLACES) as RetentionBackup["place"][]).map((id) => ({
  id,
  label: BACKUP_PLACES[id],
}));

const NAMES = ["text", "place", "medium", "every_days"] as const;
type BackupText = FieldText<(typeof NAMES)[number]>;
const EMPTY: BackupText = { text: "", place: "elsewhere", medium: "disk", every_days: "7" };

/** Where copies are, for the day when it burns, is stolen, or somebody deletes the wrong thing. */
export function BackupMap() {
  const { report, view, changes } = useBench();
  const kept = report.lifetime.backups;
  const copies = view.plan.retention.backups;
  const [text, setText] = useState<BackupText | null>(null);
  const [wrong, setWrong] = useState("");
  const store = (next: RetentionBackup[], label: string, onDone?: () => void) =>
    changes.act(
      { kind: "patch", patch: [{ op: "set", fields: { retention: { backups: next } } }], label },
      onDone,
    );
  const add = () => {
    if (!text) return;
    const read = valuesOf(FIELDS.backup, NAMES, text);
    if ("wrong" in read) {
      setWrong(read.wrong);
      return;
    }
    setWrong("");
    const id = freeId("copy", new Set(copies.map((copy) => copy.id)), "copy", 1);
    const next = { id, ...read.values } as RetentionBackup;
    store([...copies, next], `add the backup ${next.text}`, () => setText(null));
  };
  if (kept.count === 0) return null;
  const hasInKit = copies.some((copy) => copy.place === "in_kit");
  return (
    <section className="data-part" aria-label="Backups">
      <h3>Backups</h3>
      {kept.replaceable ? (
        <p className="soft">
          This data can be replaced. No backup is required. <NotReplaceable />
        </p>
      ) : (
        <>
          <div className="copy-map">
            {PLACES.filter((place) => place.id !== "in_kit" || hasInKit).map((place) => {
              const here = kept.copies.filter(
                (copy) => copy.place === place.id || (copy.place === "kit" && place.id === "here"),
              );
              return (
                <div key={place.id} className="copy-place">
                  <span className="soft">{place.label}</span>
                  {here.map((copy) => (
                    <div key={copy.id || "kit"} className="copy">
                      <Cobble severity={copy.counts ? "ok" : "tight"} size={18} silent />
                      <span>
                        {copy.text}
                        {copy.every_days !== null && (
                          <span className="soft"> every {days(copy.every_days)}</span>
                        )}
                      </span>
                      {copy.id && (
                        <Button
                          variant="link"
                          aria-label={`Remove the backup: ${copy.text}`}
                          onClick={() =>
                            store(
                              copies.filter((other) => other.id !== copy.id),
                              `remove the backup ${copy.text}`,
                            )
                          }
                        >
                          Remove
                        </Button>
                      )}
                    </div>
                  ))}
                  {here.length === 0 && <div className="copy nothing">none</div>}
                </div>
              );
            })}
          </div>
          <p>
            <strong className={kept.complete ? "" : "tone-tight"}>
              {kept.count} of 3 copies, {kept.media} of 2 kinds of drive, {kept.elsewhere} of 1
              elsewhere.
            </strong>
            {kept.copy_h !== null && kept.restore_h !== null && (
              <span className="soft">
                {" "}
                A full backup over the network takes {duration(kept.copy_h * 60)}, a full restore{" "}
                {duration(kept.restore_h * 60)}.
              </span>
            )}
          </p>
          {text ? (
            <InlineForm
              done="Save backup"
              busy={changes.busy}
              wrong={wrong}
              onDone={add}
              onLeave={() => setText(null)}
            >
              <Fields
                refused={wrong}
                rows={FIELDS.backup}
                names={NAMES}
                text={text}
                setText={setText}
              />
            </InlineForm>
          ) : (
            <Button
              variant=""
              size="sm"
              onClick={() => {
                setWrong("");
                setText(EMPTY);
              }}
            >
              Add a backup
            </Button>
          )}
        </>
      )}
    </section>
  );
}

function NotReplaceable() {
  const { changes } = useBench();
  return (
    <Button
      variant="link"
      disabled={changes.busy}
      onClick={() =>
        changes.act({
          kind: "patch",
          patch: [{ op: "set", fields: { retention: { replaceable: false } } }],
          label: "mark the data as irreplaceable",
        })
      }
    >
      This data is irreplaceable
    </Button>
  );
}

function days(count: number): string {
  if (count === 1) return "day";
  return count === 7 ? "week" : `${count} days`;
}
