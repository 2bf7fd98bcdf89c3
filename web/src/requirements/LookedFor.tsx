import { FigureInput } from "../ui/FigureInput";
import { shownUnit } from "../ui/displayUnits";
import { stated } from "../ui/numbers";
import type { Requirement, RequirementKind } from "../api/types";
import { amountOf, kindOf, lookedFor } from "./requirements";

interface Props {
  requirement: Requirement;
  kinds: RequirementKind[];
  /** The amount as typed; nothing where it stands as it is. */
  typed: string | undefined;
  onAmount: (typed: string) => void;
}

/** What a requirement looks for; its amount is a field. */
export function LookedFor({ requirement, kinds, typed, onAmount }: Props) {
  const amount = amountOf(requirement);
  const kind = kindOf(requirement, kinds);
  if (amount === null || !kind)
    return <span className="soft">{lookedFor(requirement, kinds)}</span>;
  return (
    <span className="soft with-amount">
      {kind.label}
      {requirement.at_most === null && ", at least"}
      <span className="with-unit">
        <FigureInput
          size="sm"
          className="tabular"
          inputMode="decimal"
          aria-label={`Amount: ${requirement.text}`}
          unit={kind.unit}
          value={typed ?? `${amount}`}
          onChange={onAmount}
        />
        <span className="unit">{shownUnit(kind.unit)}</span>
      </span>
      {requirement.rate_mb_h !== null && ` at ${stated(requirement.rate_mb_h, kind.rate_unit)}`}
    </span>
  );
}
