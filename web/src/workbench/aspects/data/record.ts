import type { AspectPage } from "../page";
import { DataView } from "./DataView";

export const DATA: AspectPage = { key: "4", View: DataView };
