/** What a better link in the place of one would bring. Pure. */
import type { Moved } from "../../../api/types";
import { figure } from "../../../ui/numbers";

/** The name of a link at the head of a sentence. */
export function headed(label: string): string {
  return label.charAt(0).toUpperCase() + label.slice(1);
}

export function betterText(
  moved: Pick<Moved, "bottleneck" | "bottleneck_label" | "betters">,
  link: string,
): string {
  if (moved.bottleneck === null) return "Nothing holds it back: a better one brings nothing.";
  if (moved.bottleneck !== link)
    return `A better one brings nothing: the neck is ${moved.bottleneck_label}.`;
  const [better] = moved.betters;
  if (better === undefined) return "It is the neck.";
  const then = better.bottleneck ? `; then the neck is ${better.bottleneck}` : "";
  return `It is the neck: a better one brings ${figure(better.rate_mb_s, "MB/s")}${then}.`;
}
