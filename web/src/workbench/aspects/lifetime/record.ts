import type { AspectPage } from "../record";
import { LifetimeView } from "./LifetimeView";

export const LIFETIME: AspectPage = { title: "Lifetime", key: "5", View: LifetimeView };
