import type { AspectPage } from "../page";
import { NoiseView } from "./NoiseView";

export const NOISE: AspectPage = { View: NoiseView, key: "7" };
