/** From the fields of the form to the image of a plan, or to what is wrong. Pure. */
import type { Image } from "../../../api/types";
import { positive } from "../../../ui/readNumber";

export interface ImageText {
  name: string;
  cardGb: string;
  memoryGb: string;
  desktop: boolean;
  families: string;
  bits: string;
}

export function imageText(image: Image | null): ImageText {
  return {
    name: image?.name ?? "",
    cardGb: image ? String(image.card_gb) : "",
    memoryGb: image ? String(image.memory_gb) : "",
    desktop: image?.desktop ?? false,
    families: (image?.families ?? []).join(", "),
    bits: image?.bits ? String(image.bits) : "",
  };
}

export function imageFrom(text: ImageText): Image | { wrong: string } {
  const name = text.name.trim();
  const card = positive(text.cardGb);
  const memory = positive(text.memoryGb);
  if (!name) return { wrong: "Enter a name." };
  if (card === null) return { wrong: "Enter a size above 0, in GB." };
  if (memory === null) return { wrong: "Enter a memory size above 0, in GB." };
  const families = text.families
    .split(",")
    .map((family) => family.trim())
    .filter(Boolean);
  return {
    name,
    card_gb: card,
    memory_gb: memory,
    desktop: text.desktop,
    families,
    bits: text.bits === "32" ? 32 : text.bits === "64" ? 64 : null,
  };
}
