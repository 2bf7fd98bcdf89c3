import type { AspectPage } from "../page";
import { PurposeView } from "./PurposeView";

export const PURPOSE: AspectPage = { View: PurposeView, whole: true };
