import type { AspectPage } from "../record";
import { CostTable } from "./CostTable";

export const COST: AspectPage = { title: "Cost", View: CostTable, key: "6" };
