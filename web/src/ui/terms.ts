/** Our words, each in a sentence or two. */
export const TERMS = {
  ruler:
    "A ruler is one margin, drawn: how far a figure is from its limit. Right of the line is spare, left of it short.",
  snag: "A snag is something that stops the plan, leaves little to spare, or is worth knowing. Open one for its ways out.",
  kit: "The kit is the parts chosen, in the order in which they are built together.",
  cupboard: "The cupboard holds all parts. Each is tried in this plan before you choose it.",
  plan: "A plan is a build being thought through. Nothing is ordered here, and every step can be undone.",
  whatIf:
    "Another hottest day, or another load: looked at without changing the plan, until you make it the plan’s.",
  working:
    "The working is the arithmetic behind a figure: formula, inputs, and where each comes from.",
  schedule: "How its day goes: parts of the day, and how hard each thing works in them.",
} as const;

export type TermId = keyof typeof TERMS;
