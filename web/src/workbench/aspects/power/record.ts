import type { AspectPage } from "../record";
import { PowerView } from "./PowerView";

export const POWER: AspectPage = { title: "Supply", View: PowerView, key: "2" };
