import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import type { RetentionBackup } from "../../../api/types";
import { Amount } from "../../../ui/Amount";
import { Cobble } from "../../../ui/Cobble";
import { InlineForm } from "../../../ui/InlineForm";
import { duration } from "../../../ui/numbers";
import { positive } from "../../../ui/readNumber";
import { useBench } from "../../bench";
import { BACKUP_DRIVES, BACKUP_PLACES } from "../../../api/labels";

const PLACES = (Object.keys(BACKUP_PLACES) as RetentionBackup["place"][]).map((id) => ({
  id,
  label: BACKUP_PLACES[id],
}));

const EMPTY = {
  text: "",
  place: "elsewhere" as RetentionBackup["place"],
  medium: "disk" as RetentionBackup["medium"],
  days: "7",
};

/** Where copies are, for the day when it burns, is stolen, or somebody deletes the wrong thing. */
export function BackupMap() {
  const { report, view, changes } = useBench();
  const kept = report.lifetime.backups;
  const copies = view.plan.retention.backups;
  const [text, setText] = useState<typeof EMPTY | null>(null);
  const [wrong, setWrong] = useState("");
  const store = (next: RetentionBackup[], label: string, onDone?: () => void) =>
    changes.act(
      { kind: "patch", patch: [{ op: "set", fields: { retention: { backups: next } } }], label },
      onDone,
    );
  const add = () => {
    if (!text) return;
    const days = positive(text.days);
    const name = text.text.trim();
    if (!name) setWrong("Enter a name, for example “disk in the office”.");
    else if (days === null) setWrong("Enter a number of days, for example 7.");
    else {
      setWrong("");
      const ids = new Set(copies.map((copy) => copy.id));
      const id = Array.from({ length: 30 }, (_, n) => `copy-${n + 1}`).find((one) => !ids.has(one));
      const next = {
        id: id ?? name,
        text: name,
        place: text.place,
        medium: text.medium,
        every_days: days,
      };
      store([...copies, next], `add the backup ${name}`, () => setText(null));
    }
  };
  if (kept.count === 0) return null;
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
            {PLACES.map((place) => {
              const here = kept.copies.filter(
                (copy) => copy.place === place.id || (copy.place === "kit" && place.id === "here"),
              );
              return (
                <div key={place.id} className="copy-place">
                  <span className="soft">{place.label}</span>
                  {here.map((copy) => (
                    <div key={copy.id || "kit"} className="copy">
                      <Cobble severity="ok" size={18} silent />
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
              <BackupFields text={text} setText={setText} />
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

interface FieldProps {
  text: typeof EMPTY;
  setText: (text: typeof EMPTY) => void;
}

function BackupFields({ text, setText }: FieldProps) {
  return (
    <>
      <Form.Group controlId="copy-text">
        <Form.Label>Name</Form.Label>
        <Form.Control
          size="sm"
          maxLength={60}
          placeholder="Disk in the office"
          value={text.text}
          onChange={(event) => setText({ ...text, text: event.target.value })}
        />
      </Form.Group>
      <Form.Group controlId="copy-place">
        <Form.Label>Location</Form.Label>
        <Form.Select
          size="sm"
          value={text.place}
          onChange={(event) =>
            setText({ ...text, place: event.target.value as RetentionBackup["place"] })
          }
        >
          {PLACES.map((place) => (
            <option key={place.id} value={place.id}>
              {place.label}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <Form.Group controlId="copy-medium">
        <Form.Label>Drive</Form.Label>
        <Form.Select
          size="sm"
          value={text.medium}
          onChange={(event) =>
            setText({ ...text, medium: event.target.value as RetentionBackup["medium"] })
          }
        >
          {Object.entries(BACKUP_DRIVES).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <Amount
        id="copy-days"
        label="How often"
        unit="days"
        value={text.days}
        onChange={(value) => setText({ ...text, days: value })}
      />
    </>
  );
}

function days(count: number): string {
  if (count === 1) return "day";
  return count === 7 ? "week" : `${count} days`;
}
