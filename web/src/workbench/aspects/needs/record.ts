import type { AspectPage } from "../record";
import { PurposeView } from "./PurposeView";

export const NEEDS: AspectPage = { title: "Purpose", View: PurposeView, whole: true };
