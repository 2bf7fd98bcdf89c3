import type { ComponentType } from "react";

/** What the page has to know of an aspect; what it is called is in the table of labels. */
export interface AspectPage {
  /** What is drawn in the centre; null for what is told as snags only. */
  View: ComponentType | null;
  /** The key that opens it. */
  key?: string;
  /** Whether it fills the centre by itself, also before there is a board. */
  whole?: boolean;
}
