import type { AspectPage } from "../page";
import { HeatView } from "./HeatView";

export const HEAT: AspectPage = { View: HeatView, key: "3" };
