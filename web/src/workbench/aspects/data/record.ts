import type { AspectPage } from "../record";
import { DataView } from "./DataView";

export const DATA: AspectPage = { title: "Data", key: "4", View: DataView };
