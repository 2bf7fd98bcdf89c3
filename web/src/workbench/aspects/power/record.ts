import type { AspectPage } from "../record";
import { PowerView } from "./PowerView";

export const POWER: AspectPage = { title: "Power", View: PowerView, key: "2" };
