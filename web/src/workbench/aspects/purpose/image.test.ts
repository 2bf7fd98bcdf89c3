import { describe, expect, it } from "vitest";

import { imageFrom, imageText } from "./image";

const image = {
  name: "Slim image",
  card_gb: 4,
  memory_gb: 0.5,
  desktop: false,
  families: ["Marlpit", "Gorsewick"],
  bits: 64,
} as const;

describe("the image from its fields", () => {
  it("comes back as it was", () => {
    expect(imageFrom(imageText({ ...image, families: [...image.families] }))).toEqual(image);
  });

  it("starts empty where there is none", () => {
    expect(imageText(null)).toMatchObject({ name: "", families: "", bits: "" });
  });

  it("drops empty names between commas", () => {
    const text = {
      ...imageText(null),
      name: "x",
      card_gb: "4",
      memory_gb: "1",
      families: " A, ,B, ",
    };
    expect(imageFrom(text)).toMatchObject({ families: ["A", "B"], bits: null });
  });

  it.each([
    [{ name: "" }, "Image: enter one"],
    [{ card_gb: "" }, "Size on the drive: enter a number"],
    [{ memory_gb: "much" }, "Memory needed: enter a number"],
  ])("says what is wrong with %o", (change, words) => {
    const text = { ...imageText(null), name: "x", card_gb: "4", memory_gb: "1", ...change };
    const found = imageFrom(text);
    expect("wrong" in found && found.wrong).toContain(words);
  });
});
