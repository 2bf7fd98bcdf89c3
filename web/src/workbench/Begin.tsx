import Button from "react-bootstrap/Button";

import { Cobble } from "../ui/Cobble";
import { useBench } from "./bench";
import { KIT_ROLES } from "../ui/roles";

const WHY: Record<string, string> = {
  board: "Sets the speed, ports and memory.",
  power: "Delivers enough current and advertises it to the board.",
  boot: "Memory card or drive.",
};

/** What stands in the centre while the kit has no board: the three things that every kit needs. */
export function Begin() {
  const { report, openParts } = useBench();
  const needed = KIT_ROLES.filter((entry) => entry.needed);
  return (
    <div className="begin">
      <h3>Start with the parts every kit needs</h3>
      <p className="soft">
        Each choice is checked at once: fit, power, heat and cost. Nothing is ordered here, and
        every step can be undone.
      </p>
      <ol>
        {needed.map(({ role, label }) => {
          const chosen = report.lines.find((line) => line.role === role);
          return (
            <li key={role}>
              <Cobble severity={chosen ? "ok" : "note"} size={20} silent />
              <span>
                <strong>{chosen ? chosen.name : label}</strong>
                <br />
                <span className="soft">{chosen ? chosen.summary : WHY[role]}</span>
              </span>
              {!chosen && (
                <Button variant="" size="sm" onClick={() => openParts(role, null)}>
                  Choose
                </Button>
              )}
            </li>
          );
        })}
      </ol>
    </div>
  );
}
