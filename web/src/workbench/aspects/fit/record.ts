import type { AspectPage } from "../page";
import { FitView } from "./FitView";

export const FIT: AspectPage = { View: FitView, key: "1" };
