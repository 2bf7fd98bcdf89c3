import type { AspectPage } from "../page";
import { LifetimeView } from "./LifetimeView";

export const LIFETIME: AspectPage = { key: "5", View: LifetimeView };
