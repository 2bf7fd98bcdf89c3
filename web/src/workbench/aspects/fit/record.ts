import type { AspectPage } from "../record";
import { FitView } from "./FitView";

export const FIT: AspectPage = { title: "Fit", View: FitView, key: "1" };
