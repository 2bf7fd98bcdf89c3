import type { ComponentType } from "react";

import type { AspectId } from "../../api/types";
import { COST } from "./cost/record";
import { DATA } from "./data/record";
import { FIT } from "./fit/record";
import { HEAT } from "./heat/record";
import { LIFETIME } from "./lifetime/record";
import { PURPOSE } from "./purpose/record";
import { NOISE } from "./noise/record";
import { SAFETY } from "./safety/record";
import { POWER } from "./power/record";

/** What the page has to know of an aspect. */
export interface AspectPage {
  title: string;
  /** What is drawn in the centre; null for what is told as snags only. */
  View: ComponentType | null;
  /** The key that opens it. */
  key?: string;
  /** Whether it fills the centre by itself, also before there is a board. */
  whole?: boolean;
}

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
