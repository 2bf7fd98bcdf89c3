/** What a better link in the place of one would bring. Pure. */
import type { Moved } from "../../../api/types";
import { figure } from "../../../ui/numbers";

export function betterText(
  moved: Pick<Moved, "bottleneck" | "bottleneck_label" | "betters">,
  link: string,
): string {
  if (moved.bottleneck === null) return "Not the bottleneck: a faster link changes nothing.";
  if (moved.bottleneck !== link)
    return `A faster link changes nothing. Bottleneck: ${moved.bottleneck_label}.`;
  const [better] = moved.betters;
  if (better === undefined) return "This link is the bottleneck.";
  const then = better.bottleneck ? `; the next bottleneck is ${better.bottleneck}` : "";
  return `This link is the bottleneck. A faster link brings ${figure(better.rate_mb_s, "MB/s")}${then}.`;
}
