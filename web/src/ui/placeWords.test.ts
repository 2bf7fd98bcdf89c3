import { describe, expect, it } from "vitest";

import type { KnownPlace } from "../api/types";
import { placeMeans, placeWords } from "./placeWords";
import { read } from "../testing/reports";

const ROOM: KnownPlace["place"] = {
  name: "Room",
  ambient_min_c: 15,
  ambient_max_c: 28,
  altitude_m: 0,
  mounting: "feet",
  sun_w_m2: 0,
  wet: false,
  dust: "clean",
  noise_max_dba: null,
  network: "both",
  within_reach_of: "adults",
  power: "mains",
  latitude_deg: null,
};

describe("a place in words", () => {
  it("tells the temperatures, and nothing that goes without saying", () => {
    expect(read(placeWords(ROOM))).toBe("15 to 28 °C");
    expect(placeMeans(ROOM)).toEqual([]);
  });

  it("tells what is out of the ordinary", () => {
    const stair = {
      ...ROOM,
      dust: "some",
      power: "solar",
      network: "none",
      noise_max_dba: 24,
    } as const;
    expect(read(placeWords(stair))).toBe(
      "15 to 28 °C, some dust, solar-powered, no network, at most 24 dB(A) at 1 m",
    );
  });

  it("says what it means for the parts", () => {
    const means = placeMeans({
      ...ROOM,
      wet: true,
      dust: "much",
      power: "poe",
      network: "wifi",
    });
    expect(means).toHaveLength(4);
    expect(means.join(" ")).toMatch(/splash-proof.*dust-protected.*PoE splitters.*Wi-Fi/);
    expect(placeMeans({ ...ROOM, power: "battery" })[0]).toMatch(/with a battery/);
  });
});
