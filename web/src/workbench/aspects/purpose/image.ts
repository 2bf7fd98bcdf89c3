/** From the fields of the form to the image of a plan, or to what is wrong. Pure. */
import { FIELDS } from "../../../api/labels";
import type { Image } from "../../../api/types";
import { textOf, valuesOf, type FieldText } from "../../../ui/fieldText";

export const ROWS = FIELDS.image;
export const NAMES = ["name", "card_gb", "memory_gb", "families", "bits", "desktop"] as const;
export type ImageText = FieldText<(typeof NAMES)[number]>;

export function imageText(image: Image | null): ImageText {
  return textOf(ROWS, NAMES, image ?? {});
}

export function imageFrom(text: ImageText): Image | { wrong: string } {
  const read = valuesOf(ROWS, NAMES, text);
  return "wrong" in read ? read : (read.values as Image);
}
