import type { AspectPage } from "../record";
import { LifeView } from "./LifeView";

export const LIFE: AspectPage = { title: "Life", key: "5", View: LifeView };
