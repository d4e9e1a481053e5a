import { describe, expect, it } from "vitest";

import { beatsOf, momentAt, partsOf, partWords, raised, sameMoment, thenWords } from "../src/film/counting";
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

  it("of half beats begins its parts between the beats, and says when", () => {
    const sips = cardOf(0.5, 0, 8, 80, 2);
    const seen = [];
    for (let beat = 0; beat < beatsOf(sips)!; beat = momentAt(sips, beat).until) seen.push([beat, momentAt(sips, beat).part]);
    expect(seen.filter(([, part]) => part === "in").map(([beat]) => beat)).toEqual([4, 12.5]);
    expect(seen.filter(([, part]) => part === "out").map(([beat]) => beat)).toEqual([
      ...[4.5, 5.5, 6.5, 7.5, 8.5, 9.5, 10.5, 11.5],
      ...[13, 14, 15, 16, 17, 18, 19, 20],
    ]);
    expect(momentAt(sips, beatsOf(sips)!).until).toBe(Infinity);
  });

  it("is the same until another number, part or breath is said", () => {
    expect(sameMoment(momentAt(CARD, 4), momentAt(CARD, 4.9))).toBe(true);
    for (const other of [5, 7, 11]) expect(sameMoment(momentAt(CARD, 4), momentAt(CARD, other))).toBe(false);
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
