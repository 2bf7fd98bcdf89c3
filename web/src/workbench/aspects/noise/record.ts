import type { AspectPage } from "../record";
import { NoiseView } from "./NoiseView";

export const NOISE: AspectPage = { title: "Noise", View: NoiseView, key: "7" };
