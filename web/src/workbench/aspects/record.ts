import type { AspectId } from "../../api/types";
import { COST } from "./cost/record";
import { DATA } from "./data/record";
import { FIT } from "./fit/record";
import { HEAT } from "./heat/record";
import { LIFETIME } from "./lifetime/record";
import { PURPOSE } from "./purpose/record";
import { NOISE } from "./noise/record";
import { SAFETY } from "./safety/record";
import type { AspectPage } from "./page";
import { POWER } from "./power/record";

/** One entry for each aspect of the core's, in its order: a missing one does not compile. */
export const ASPECTS: Record<AspectId, AspectPage> = {
  purpose: PURPOSE,
  fit: FIT,
  power: POWER,
  heat: HEAT,
  data: DATA,
  lifetime: LIFETIME,
  cost: COST,
  noise: NOISE,
  safety: SAFETY,
};

/** By key, those that can be opened with one. */
export const BY_KEY = new Map(
  Object.entries(ASPECTS).flatMap(([id, { key }]) => (key ? [[key, id as AspectId]] : [])),
);

/** The aspect of a snag, where it has something to look at. */
export function aspectOf(family: string): AspectId | null {
  return family in ASPECTS && ASPECTS[family as AspectId].View ? (family as AspectId) : null;
}
