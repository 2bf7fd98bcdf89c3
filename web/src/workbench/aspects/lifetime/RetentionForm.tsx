import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import type { Retention, Plan } from "../../../api/types";

import { Amount } from "../../../ui/Amount";
import { Meanwhile } from "../../../ui/Meanwhile";
import { positive, readNumber } from "../../../ui/readNumber";
import { useTyped } from "../../../ui/typed";
import { useBench } from "../../bench";
import { SETTING_FIELDS, WHEN_FULL, WRITES } from "../../../api/labels";

/** What is typed, as it is stored. */
function retentionText({ retention, storage_use }: Plan) {
  return {
    years: `${retention.years}`,
    own: retention.system_gb_day === null ? "" : `${retention.system_gb_day}`,
    growth: storage_use.growth_gb_month === null ? "" : `${storage_use.growth_gb_month}`,
  };
}

/** How long it is to last, and what writes to it. */
export function RetentionForm() {
  const { view, changes } = useBench();
  const id = useId();
  const { retention, settings, storage_use } = view.plan;
  const typed = useTyped(retentionText(view.plan), view.version);
  const [wrong, setWrong] = useState("");
  const { text, setText } = typed;
  const set = (field: "retention" | "settings" | "storage_use", fields: object, label: string) =>
    changes.act({ kind: "patch", patch: [{ op: "set", fields: { [field]: fields } }], label });
  const save = () => {
    const years = positive(text.years);
    const own = text.own.trim() === "" ? null : readNumber(text.own);
    const growth = text.growth.trim() === "" ? null : readNumber(text.growth);
    const told =
      years === null || years > 50
        ? "Enter a required lifetime up to 50 years."
        : own !== null && !(own >= 0)
          ? "Enter the data written in GB per day, or leave it empty."
          : growth !== null && !(growth >= 0)
            ? "Enter the growth in GB per month, or leave it empty."
            : "";
    setWrong(told);
    if (told) return;
    const fields = {
      retention: { years, system_gb_day: own },
      storage_use: { growth_gb_month: growth },
    };
    changes.act(
      { kind: "patch", patch: [{ op: "set", fields }], label: "required lifetime" },
      (stored) => typed.settle(retentionText(stored.plan), stored.version),
    );
  };
  return (
    <form
      className="keeping-form"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <Amount
        id={`${id}-years`}
        label="Required lifetime"
        unit="years"
        value={text.years}
        onChange={(years) => setText({ ...text, years })}
      />
      <Form.Group controlId={`${id}-writes`}>
        <Form.Label>Write pattern</Form.Label>
        <Form.Select
          size="sm"
          value={retention.writes}
          disabled={changes.busy}
          onChange={(event) =>
            set(
              "retention",
              { writes: event.target.value },
              `write pattern: ${WRITES[event.target.value as Retention["writes"]]}`,
            )
          }
        >
          {Object.entries(WRITES).map(([name, label]) => (
            <option key={name} value={name}>
              {label}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <Amount
        id={`${id}-own`}
        label="Measured writes"
        unit="GB per day"
        value={text.own}
        placeholder="typical"
        onChange={(own) => setText({ ...text, own })}
      />
      <Amount
        id={`${id}-growth`}
        label="Growth"
        unit="GB per month"
        value={text.growth}
        placeholder="0"
        onChange={(growth) => setText({ ...text, growth })}
      />
      <Form.Group controlId={`${id}-full`}>
        <Form.Label>When storage is full</Form.Label>
        <Form.Select
          size="sm"
          value={storage_use.when_full}
          disabled={changes.busy}
          onChange={(event) =>
            set("storage_use", { when_full: event.target.value }, "when storage is full")
          }
        >
          {Object.entries(WHEN_FULL).map(([name, label]) => (
            <option key={name} value={name}>
              {label}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <div className="keeping-checks">
        <Form.Check
          id={`${id}-memory`}
          label={SETTING_FIELDS.logs_in_memory[0]}
          checked={settings.logs_in_memory}
          disabled={changes.busy}
          onChange={(event) =>
            set("settings", { logs_in_memory: event.target.checked }, "logs in memory")
          }
        />
        <Form.Check
          id={`${id}-readonly`}
          label={SETTING_FIELDS.read_only_root[0]}
          checked={settings.read_only_root}
          disabled={changes.busy}
          onChange={(event) =>
            set("settings", { read_only_root: event.target.checked }, "read-only system")
          }
        />
      </div>
      <Meanwhile
        typed={typed}
        labels={{ years: "Required lifetime", own: "Measured writes", growth: "Growth" }}
      />
      {typed.dirty && (
        <div className="form-actions">
          <Button type="submit" variant="primary" size="sm" disabled={changes.busy}>
            Save
          </Button>
          <Button variant="" size="sm" onClick={() => setText(typed.base)}>
            Discard
          </Button>
        </div>
      )}
      {wrong && (
        <p role="alert" className="field-wrong">
          {wrong}
        </p>
      )}
    </form>
  );
}
