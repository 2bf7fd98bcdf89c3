import type { AspectPage } from "../record";
import { SupplyView } from "./SupplyView";

export const SUPPLY: AspectPage = { title: "Supply", View: SupplyView, key: "2" };
