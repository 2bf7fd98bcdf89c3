import type { Change, PlanView } from "../api/types";
import { Fields } from "../ui/Fields";
import { textOf, valuesOf, type FieldRows } from "../ui/fieldText";
import { useBench } from "./bench";

interface Props<N extends string> {
  /** The part of the plan that the fields are of. */
  form: keyof PlanView["plan"];
  rows: FieldRows<N>;
  names: readonly N[];
  of: Partial<Record<N, unknown>>;
}

/** Choices and checks of a plan, each stored and judged as soon as it is made. */
export function AtOnce<N extends string>({ form, rows, names, of }: Props<N>) {
  const { changes } = useBench();
  const text = textOf(rows, names, of);
  return (
    <Fields
      rows={rows}
      names={names}
      text={text}
      disabled={changes.busy}
      setText={(next) => {
        const name = names.find((one) => next[one] !== text[one]);
        const read = name === undefined ? null : valuesOf(rows, [name], next);
        if (name === undefined || !read || "wrong" in read) return;
        const choice = rows[name].choices[String(next[name])];
        const label = rows[name].label.toLowerCase() + (choice ? `: ${choice}` : "");
        const change = { op: "set", fields: { [form]: read.values } } as Change;
        changes.act({ kind: "patch", patch: [change], label });
      }}
    />
  );
}
