import type { AspectPage } from "../record";

export const SAFETY: AspectPage = { title: "Cautions", View: null };
