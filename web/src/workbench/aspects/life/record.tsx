import { NotJudged } from "../NotJudged";
import type { AspectPage } from "../record";

export const LIFE: AspectPage = {
  title: "Life",
  key: "5",
  View: () => (
    <NotJudged
      title="How long it lasts"
      what="Years of a card or drive under what is written to it, and the odds of an array."
    />
  ),
};
