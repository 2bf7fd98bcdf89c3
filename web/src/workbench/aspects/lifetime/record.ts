import type { AspectPage } from "../record";
import { LifetimeView } from "./LifetimeView";

export const LIFETIME: AspectPage = { title: "Life", key: "5", View: LifetimeView };
