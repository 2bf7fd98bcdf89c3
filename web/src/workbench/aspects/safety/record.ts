import type { AspectPage } from "../page";

export const SAFETY: AspectPage = { View: null };
