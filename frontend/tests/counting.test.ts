import { describe, expect, it } from "vitest";

import { beatsOf, momentAt, partsOf, partWords, raised, thenWords } from "../src/film/counting";
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

describe("the count of a hold", () => {
  it("says up, keep and rest where a breath says in and out", () => {
    expect((["in", "out", "empty"] as const).map((part) => partWords(part, "hold"))).toEqual(["bring it up", "keep it there", "rest it"]);
    expect((["in", "out", "empty"] as const).map((part) => thenWords(part, "hold"))).toEqual(["up", "keep it", "down"]);
    expect([partWords("in", "counted_breathing"), thenWords("out", "counted_breathing")]).toEqual(["breathe in", "out"]);
  });

  it("is drawn up, along, and down where it rests", () => {
    expect(raised(0, 2, 8, 10, 30, 10)).toBe("M0,30 L2,10 H8 L10,30");
    expect(raised(0, 2, 8, 8, 30, 10)).toBe("M0,30 L2,10 H8");
  });
});
