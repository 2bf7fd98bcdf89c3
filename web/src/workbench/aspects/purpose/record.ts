import type { AspectPage } from "../record";
import { PurposeView } from "./PurposeView";

export const PURPOSE: AspectPage = { title: "Purpose", View: PurposeView, whole: true };
