import Button from "react-bootstrap/Button";

import type { PlanChanges } from "../api/usePlanChanges";

/** A change that was refused: what happened, and the way on. Keeps its row in the page's grid. */
export function ChangeNotice({ changes }: { changes: PlanChanges }) {
  const refused = changes.refused;
  if (!refused) return <div />;
  const came = refused.error.problem.changes;
  return (
    <div className={`notice ${refused.error.isStale ? "" : "notice-bad"}`} role="alert">
      <span>
        {refused.error.message}
        {came.length > 0 && ` Saved in the meantime: ${came.join("; ")}.`}
      </span>
      {refused.error.isStale && (
        <Button variant="" size="sm" onClick={changes.again}>
          Apply my change
        </Button>
      )}
      <Button variant="" size="sm" onClick={changes.dismiss}>
        {refused.error.isStale ? "Use the saved version" : "Close"}
      </Button>
    </div>
  );
}
