import type { AspectPage } from "../record";
import { HeatView } from "./HeatView";

export const HEAT: AspectPage = { title: "Heat", View: HeatView, key: "3" };
