import { NotJudged } from "../NotJudged";
import type { AspectPage } from "../record";

export const DATA: AspectPage = {
  title: "Data",
  key: "4",
  View: () => (
    <NotJudged
      title="How fast its data moves"
      what="The flow of a copy through network, bus and drive, and which of them is the neck."
    />
  ),
};
