import type { Plan } from "../api/types";
import { figure } from "../ui/numbers";

/** What a printed page begins with, in the place of the bar: what the plan is, and of which day. */
export function PaperHead({ plan }: { plan: Plan }) {
  const { name, ambient_min_c, ambient_max_c } = plan.place;
  const range = `${figure(ambient_min_c, "°C")} to ${figure(ambient_max_c, "°C")}`;
  return (
    <header className="on-paper">
      <h1>{plan.name}</h1>
      {plan.purpose && <p>{plan.purpose}</p>}
      <p>
        {name && `${name}: `}
        {range}. Checked by Cobblewort, printed on {new Date().toLocaleDateString()}.
      </p>
    </header>
  );
}
