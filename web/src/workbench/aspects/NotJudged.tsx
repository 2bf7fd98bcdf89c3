/** A margin that no rule looks at yet says so: neither sound nor wrong. */
export function NotJudged({ title, what }: { title: string; what: string }) {
  return (
    <div className="unjudged-panel">
      <h3 className="fs-6">{title}</h3>
      <p>{what}</p>
      <div className="dotted" />
      <p className="soft">
        This version has no rule for it, so nothing is said: not that it is well, nor that it is
        wrong. Judge it by hand before you order.
      </p>
    </div>
  );
}
