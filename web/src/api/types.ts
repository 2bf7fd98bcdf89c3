/** The core's own types by the names the page uses. */
import type { components } from "./schema";

type Schemas = components["schemas"];

/** A sentence: words and names as they are, and figures. */
export type Text = Schemas["Text"];
export type Figure = Schemas["Figure"];
export type Plan = Schemas["Plan-Output"];
export type PlanView = Schemas["PlanView"];
export type PlanStrip = Schemas["PlanStrip"];
export type Report = Schemas["Report"];
export type Margin = Schemas["Margin"];
export type Finding = Schemas["Finding"];
export type FamilyReport = Schemas["FamilyReport"];
export type LineReport = Schemas["LineReport"];
export type PowerNode = Schemas["PowerNode"];
export type Fix = Schemas["Fix"];
export type Candidate = Schemas["Candidate"];
export type Effect = Schemas["Effect"];
export type Problem = Schemas["Problem"];
export type Working = Schemas["Working"];
export type Requirement = Schemas["Requirement-Output"];
export type RequirementKind = Schemas["RequirementKind"];
export type RequirementReport = Schemas["RequirementReport"];
export type Purpose = Schemas["Purpose"];
export type KnownPlace = Schemas["KnownPlace"];
export type Place = Schemas["Place-Output"];
export type Phase = Schemas["Phase-Output"];
export type CheaperKit = Schemas["CheaperKitView"];
export type FirstKit = Schemas["FirstKitView"];
export type AskedRequest = Schemas["AskedRequest"];
export type AskedAnewRequest = Schemas["AskedAnewRequest"];
export type FirstKitRequest = Schemas["FirstKitRequest"];
export type KitSearch = Schemas["KitSearch"];
export type KitWishes = Schemas["KitWishes"];
export type BeatenKit = Schemas["BeatenKit"];
export type SuggestedKit = Schemas["SuggestedKit"];
export type CriterionView = Schemas["CriterionView"];
export type ChosenPart = Schemas["ChosenPart"];
export type CriterionId = CriterionView["id"];
export type Alternative = Schemas["Alternative"];
export type PartSheet = Schemas["PartSheet"];
export type SheetFigure = Schemas["SheetFigure"];
export type PartEdit = Schemas["PartEdit"];
export type Activity = Phase["activity"];
export type Term = Schemas["Term"];
export type RuleView = Schemas["RuleView"];
export type PartView = Schemas["PartView"];
export type Severity = Margin["severity"];
/** A ruler, or what is told without one. */
export type AspectId = RuleView["family"];
export type Role = LineReport["role"];
export type Change = Schemas["PatchRequest"]["patch"][number];
/** A button or LED as it is sent: what is left out is filled in. */
export type Wired = Schemas["Wired-Input"];
export type Image = Schemas["Image-Output"];
export type Transfer = Schemas["Transfer-Output"];
export type PlanStorage = Schemas["StorageUse-Output"];
export type Retention = Schemas["Retention-Output"];
export type RetentionBackup = Schemas["Backup-Output"];
export type Moved = Schemas["MovedReport"];
export type Situation = Schemas["SituationReport"];
export type DataLink = Schemas["LinkReport"];
export type LayoutReport = Schemas["LayoutReport"];
export type WearReport = Schemas["WearReport"];
export type Preferences = Schemas["Preferences-Output"];
