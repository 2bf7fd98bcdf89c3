import type { AspectPage } from "../page";
import { CostTable } from "./CostTable";

export const COST: AspectPage = { View: CostTable, key: "6" };
