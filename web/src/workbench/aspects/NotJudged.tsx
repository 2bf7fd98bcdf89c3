import type { FamilyId } from "../../api/types";

const LATER: Partial<Record<FamilyId, { title: string; what: string }>> = {
  data: {
    title: "How fast its data moves",
    what: "The flow of a copy through network, bus and drive, and which of them is the neck.",
  },
  life: {
    title: "How long it lasts",
    what: "Years of a card or drive under what is written to it, and the odds of an array.",
  },
};

/** A margin that no rule looks at yet says so: neither sound nor wrong. */
export function NotJudged({ family }: { family: FamilyId }) {
  const text = LATER[family];
  return (
    <div className="unjudged-panel">
      <h3 className="fs-6">{text?.title}</h3>
      <p>{text?.what}</p>
      <div className="dotted" />
      <p className="soft">
        This version has no rule for it, so nothing is said: not that it is well, nor that it is
        wrong. Judge it by hand before you order.
      </p>
    </div>
  );
}
