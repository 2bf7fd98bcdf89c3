import { useState } from "react";
import Button from "react-bootstrap/Button";

import { FIELDS } from "../../../api/labels";
import type { Plan } from "../../../api/types";
import { Fields } from "../../../ui/Fields";
import { textOf, valuesOf } from "../../../ui/fieldText";
import { Meanwhile } from "../../../ui/Meanwhile";
import { useTyped } from "../../../ui/typed";
import { AtOnce } from "../../AtOnce";
import { useBench } from "../../bench";

const NAMES = ["years", "system_gb_day", "growth_gb_month"] as const;
const ROWS = { ...FIELDS.retention, growth_gb_month: FIELDS.storage_use.growth_gb_month };
const textOfPlan = ({ retention, storage_use }: Plan) =>
  textOf(ROWS, NAMES, { ...retention, growth_gb_month: storage_use.growth_gb_month });

/** How long it is to last, and what writes to it. */
export function RetentionForm() {
  const { view, changes } = useBench();
  const { retention, settings, storage_use } = view.plan;
  const typed = useTyped(textOfPlan(view.plan), view.version);
  const [wrong, setWrong] = useState("");
  const { text, setText } = typed;
  const save = () => {
    const read = valuesOf(ROWS, NAMES, text);
    setWrong("wrong" in read ? read.wrong : "");
    if ("wrong" in read) return;
    const { growth_gb_month, ...kept } = read.values;
    const fields = { retention: kept, storage_use: { growth_gb_month } };
    changes.act(
      { kind: "patch", patch: [{ op: "set", fields }], label: "required lifetime" },
      (stored) => typed.settle(textOfPlan(stored.plan), stored.version),
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
      <Fields refused={wrong} rows={ROWS} names={NAMES} text={text} setText={setText} />
      <AtOnce form="retention" rows={FIELDS.retention} names={["writes"]} of={retention} />
      <AtOnce form="storage_use" rows={FIELDS.storage_use} names={["when_full"]} of={storage_use} />
      <div className="keeping-checks">
        <AtOnce
          form="settings"
          rows={FIELDS.settings}
          names={["logs_in_memory", "read_only_root"]}
          of={settings}
        />
      </div>
      <Meanwhile typed={typed} rows={ROWS} />
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
