import { describe, expect, test } from "vitest";

import { scheduleFrom, segments, textOf, type PhaseText } from "./day";

const row = (name: string, hours: string, activity: PhaseText["activity"] = "idle"): PhaseText => ({
  name,
  hours,
  activity,
  lines: {},
});

describe("the day strip", () => {
  test("parts stand in their order, and the rest of the day is off", () => {
    const found = segments([row("night", "10"), row("sorting", "0.5", "full")]);
    expect(found.map((part) => [part.name, part.hours])).toEqual([
      ["night", 10],
      ["sorting", 0.5],
      ["not in use", 13.5],
    ]);
    expect(found[1]?.start).toBeCloseTo(10 / 24);
    expect(found.reduce((sum, part) => sum + part.share, 0)).toBeCloseTo(1);
  });

  test("a full day has no rest, too much is cut, and nonsense is left out", () => {
    expect(segments([row("all", "24")])).toHaveLength(1);
    expect(segments([row("a", "20"), row("b", "9")])[1]?.hours).toBe(4);
    expect(segments([row("a", "often")])).toHaveLength(1);
  });

  test("what is typed becomes the duty, with what single lines do", () => {
    const phases = [
      { name: "x", hours: 2.5, activity: "light" as const, lines: { desk: "idle" as const } },
    ];
    expect(scheduleFrom(textOf(phases))).toEqual({ schedule: phases });
  });

  test("what is wrong is said", () => {
    expect(scheduleFrom([])).toMatchObject({
      wrong: expect.stringMatching(/at least one/) as string,
    });
    expect(scheduleFrom([row("a", "0")])).toMatchObject({
      wrong: expect.stringMatching(/above 0/) as string,
    });
    expect(scheduleFrom([row(" ", "3")])).toMatchObject({
      wrong: expect.stringMatching(/needs a name/) as string,
    });
    expect(scheduleFrom([row("a", "20"), row("b", "9")])).toMatchObject({
      wrong: expect.stringMatching(/got 29 h/) as string,
    });
  });
});
