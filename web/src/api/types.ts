/** The core's own types by the names the page uses. */
import type { components } from "./schema";

type Schemas = components["schemas"];

export type Plan = Schemas["Plan-Output"];
export type PlanView = Schemas["PlanView"];
export type PlanStrip = Schemas["PlanStrip"];
export type Report = Schemas["Report"];
export type Margin = Schemas["Margin"];
export type Finding = Schemas["Finding"];
export type FamilyReport = Schemas["FamilyReport"];
export type LineReport = Schemas["LineReport"];
export type SupplyNode = Schemas["SupplyNode"];
export type Fix = Schemas["Fix"];
export type Candidate = Schemas["Candidate"];
export type Effect = Schemas["Effect"];
export type Problem = Schemas["Problem"];
export type Working = Schemas["Working"];
export type PartSheet = Schemas["PartSheet"];
export type SheetFigure = Schemas["SheetFigure"];
export type PartEdit = Schemas["PartEdit"];
export type Activity = NonNullable<Schemas["Phase"]["activity"]>;
export type Term = Schemas["Term"];
export type RuleView = Schemas["RuleView"];
export type PartView = Schemas["PartView"];
export type Severity = Margin["severity"];
export type FamilyId = FamilyReport["id"];
export type Role = Schemas["Line"]["role"];
export type Change = Schemas["PatchRequest"]["patch"][number];
