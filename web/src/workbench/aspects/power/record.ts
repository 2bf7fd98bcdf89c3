import type { AspectPage } from "../page";
import { PowerView } from "./PowerView";

export const POWER: AspectPage = { View: PowerView, key: "2" };
