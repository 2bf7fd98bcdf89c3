/** Our words, each in a sentence or two. */
export const TERMS = {
  margin:
    "Margin: how far a value is from its limit. Right of the limit line is spare; left of it is short.",
  snag: "Snag: a problem, a tight limit or a note. Open a snag to see its fixes.",
  kit: "Kit: the chosen parts, in building order. Open a line to swap or remove its part.",
  parts: "Parts: all parts you can choose. Each part is checked in this plan first.",
  plan: "Plan: one build. Nothing is ordered here, and every step can be undone.",
  whatIf: "What if: check another ambient or load. The plan changes only when you apply it.",
  working: "Working: how a value was calculated, with formula, inputs and sources.",
  schedule: "Daily schedule: the phases of a day and the load in each phase.",
} as const;

export type TermId = keyof typeof TERMS;
