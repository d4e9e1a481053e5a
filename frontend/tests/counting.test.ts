import { describe, expect, it } from "vitest";

import { beatsOf, momentAt, partsOf } from "../src/film/counting";
import { cardOf } from "./report";

const CARD = cardOf(3, 0, 4, 72, 2);

describe("the count of a card", () => {
  it("goes through its parts, those of no length left out", () => {
    expect(partsOf(CARD).map(({ part, beats }) => [part, beats])).toEqual([
      ["count-in", 4],
      ["in", 3],
      ["out", 4],
      ["in", 3],
      ["out", 4],
    ]);
    expect(beatsOf(CARD)).toBe(4 + 2 * 7 + 1);
  });

  it.each([
    [0, "count-in", 1, -1],
    [3.99, "count-in", 4, -1],
    [4, "in", 1, 0],
    [6.5, "in", 3, 0],
    [7, "out", 1, 0],
    [11, "in", 1, 1],
    [17.9, "out", 4, 1],
    [18, "done", 0, 1],
  ])("at beat %s is %s %s of breath %s", (beat, part, number, breath) => {
    expect(momentAt(CARD, beat)).toMatchObject({ part, number, breath });
  });

  it("says what comes next, and nothing after the last", () => {
    expect(momentAt(CARD, 5).next).toEqual({ part: "out", beats: 4 });
    expect(momentAt(CARD, 16).next).toBeNull();
  });

  it("of an open exhale has no end, and counts on", () => {
    const open = cardOf(4, 0, null, 60, 1);
    expect(beatsOf(open)).toBeNull();
    expect(momentAt(open, 30)).toMatchObject({ part: "out", number: 23, of: null });
  });
});
