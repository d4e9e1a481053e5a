import { describe, expect, it } from "vitest";

import type { ClassList, Member } from "../src/api/client";
import { classWords, consentLines, fitting, isDue, placesOf, sectionsOf, seenWords } from "../src/class/words";

const NOW = new Date("2026-11-26T10:00:00Z");
const member = (id: number, name: string, instrument: string, seen_at: string | null = null, until: string | null = "2027-07-23") =>
  ({ student: { id, name, instrument, may_film_until: until, note: "", exempt: [] }, seen_at, state: null, takes: 0 }) as unknown as Member;
const LONG_AGO = member(1, "Ada Quillane", "clarinet", "2026-11-01T10:00:00Z");
const LATELY = member(2, "Bo Vantreen", "trumpet", "2026-11-20T10:00:00Z");
const NEVER = member(3, "Cleo Marsh", "flute");
const UNFILMED = member(4, "Dara Fenn", "flute", null, null);

describe("who is due for a look", () => {
  it("is who was never seen, or too long ago, and nobody who may not be filmed", () => {
    expect([LONG_AGO, LATELY, NEVER, UNFILMED].map((one) => isDue(one, NOW))).toEqual([true, false, true, false]);
    expect([LONG_AGO, LATELY, NEVER, UNFILMED].map((one) => seenWords(one, NOW))).toEqual([
      "due 15 Nov",
      "seen 20 Nov",
      "not seen yet",
      "not filmed",
    ]);
  });
  it("is counted in one line", () => {
    expect(classWords([LONG_AGO, LATELY, NEVER, UNFILMED], NOW)).toBe("4 students, 3 may be filmed, 2 due for a look");
    expect(classWords([NEVER], NOW)).toBe("1 student, 1 may be filmed, 1 due for a look");
  });
});

describe("the band", () => {
  it("sits in the order of the score", () =>
    expect(sectionsOf(placesOf([LATELY, LONG_AGO, UNFILMED, NEVER], null)).map((one) => [one.instrument, one.places.length])).toEqual([
      ["flute", 2],
      ["clarinet", 1],
      ["trumpet", 1],
    ]));
  it("shows what a list would change on the chairs themselves", () => {
    const list = {
      new: [{ number: 5, name: "Eli Noor", instrument: "tuba" }],
      changed: [{ number: 3, name: "Bo Vantreen", instrument: "cornet", id: 2, was: "trumpet" }],
      left: [{ id: 3, name: "Cleo Marsh", instrument: "flute" }],
    } as unknown as ClassList;
    expect(placesOf([LONG_AGO, LATELY, NEVER], list).map((one) => [one.name, one.instrument, one.will])).toEqual([
      ["Ada Quillane", "clarinet", "stays"],
      ["Bo Vantreen", "trumpet", "moves"],
      ["Cleo Marsh", "flute", "goes"],
      ["Bo Vantreen", "cornet", "moves here"],
      ["Eli Noor", "tuba", "comes"],
    ]);
  });
});

it("consent is one line for all who are alike, the most first", () =>
  expect(consentLines([UNFILMED, LONG_AGO, LATELY])).toEqual([
    { until: "2027-07-23", names: ["Ada Quillane", "Bo Vantreen"] },
    { until: null, names: ["Dara Fenn"] },
  ]));

it("a lesson holds as many as its minutes have room for, and never fewer than none", () => {
  expect(fitting(40, 1.5, 4, 6)).toBe(20);
  expect(fitting(8, 1.5, 4, 6)).toBe(0);
});
