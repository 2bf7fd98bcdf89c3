import Button from "react-bootstrap/Button";
import { Link } from "react-router";

import { useBench } from "./bench";
import { roleLabel } from "../ui/roles";
import { textOf } from "../ui/text";

/** The one next thing to do, as the core sees it. */
export function NextStep() {
  const { report, view, openParts, setOpenSnag, openWorking } = useBench();
  const { text, role, finding, figure } = report.next_step;
  return (
    <div className="next-step">
      <h2>Next</h2>
      <p>{textOf(text)}</p>
      {role !== null && (
        <Button variant="primary" size="sm" onClick={() => openParts(role, null)}>
          Open Parts: {roleLabel(role)}
        </Button>
      )}
      {role === null && finding !== null && (
        <Button variant="" size="sm" onClick={() => setOpenSnag(finding)}>
          Show
        </Button>
      )}
      {figure !== null && (
        <Button variant="" size="sm" onClick={() => openWorking(figure)}>
          Show working
        </Button>
      )}{" "}
      <Link to={`/plans/${view.id}/kits`}>Suggest kits</Link>
    </div>
  );
}
