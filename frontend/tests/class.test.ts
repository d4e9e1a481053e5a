import { describe, expect, it } from "vitest";

import type { ClassList, JudgedRow, Member } from "../src/api/client";
import { consentRows } from "../src/class/consent";
import { choices, inGroup, nextGroup } from "../src/class/groups";
import { leftOut, toLeaveOut } from "../src/class/spared";
import { undoOf } from "../src/class/undo";
import { classWords, fitting, isDue, leftWords, placesOf, sectionsOf, seenWords } from "../src/class/words";

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

describe("consent", () => {
  const word = (purpose: string, until_day: string, withdrawn_on: string | null = null) => ({
    purpose,
    given_by: "letter",
    from_day: "2026-09-01",
    until_day,
    withdrawn_on,
  });
  const with_ = (one: Member, ...consents: object[]) => ({ ...one, consents }) as unknown as Member;
  const both = [word("filming", "2027-07-23"), word("keeping", "2027-07-23")];
  const rows = consentRows(
    [
      with_(UNFILMED),
      with_(LONG_AGO, ...both),
      with_(LATELY, ...both),
      with_(NEVER, word("filming", "2026-12-01"), word("keeping", "2027-07-23", "2026-11-20")),
    ],
    NOW,
  );

  it("is one row for all who are alike, the most first, and exceptions by name", () =>
    expect(rows.map(({ who, ask }) => [who, ask])).toEqual([
      ["2 students", false],
      ["Dara Fenn", true],
      ["Cleo Marsh", true],
    ]));

  it("says what ends soon, what was taken back, and what no letter came for", () => {
    expect(rows[2]!.cells.map(({ words }) => words)).toEqual([
      "until 1 Dec, 6 days",
      "taken back 20 Nov",
      "no letter yet",
      "no letter yet",
    ]);
    expect(rows[0]!.cells.map(({ words }) => words)).toEqual(["until 23 Jul", "until 23 Jul", "no letter yet", "no letter yet"]);
  });

  it("is drawn from the first day to the last, around today", () => {
    const [film] = rows[0]!.cells;
    expect(film!.from).toBeLessThan(film!.today);
    expect(film!.to).toBeGreaterThan(film!.today);
    expect(rows[1]!.cells[0]!.to).toBe(0);
  });
});

it("a lesson holds as many as its minutes have room for, and never fewer than none", () => {
  expect(fitting(40, 1.5, 4, 6)).toBe(20);
  expect(fitting(8, 1.5, 4, 6)).toBe(0);
  expect(leftWords([])).toBe("");
  expect(leftWords(["Ada One"])).toBe("1 comes first next time: Ada");
  expect(leftWords(["Ada One", "Bo Two", "Cy Three", "Di Four", "Eli Five"])).toBe("5 come first next time: Ada, Bo, Cy and 2 more");
});

describe("what is not measured for a student", () => {
  const rows: JudgedRow[] = [
    { criterion: "pause", title: "Pause", unit: "", area: "breath" },
    { criterion: "axis_level", title: "Instrument's angle", unit: "", area: "hold" },
    { criterion: "feet_flat", title: "Feet", unit: "", area: "posture" },
  ];
  it("stands in the table's order, what is no row any more left out", () => {
    expect(leftOut(rows, ["feet_flat", "pause", "of an older release"]).map(({ title }) => title)).toEqual(["Pause", "Feet"]);
  });
  it("is chosen part by part, from what is not left out yet", () => {
    expect(toLeaveOut(rows, ["pause"]).map(({ value, words }) => [value, words])).toEqual([
      ["", "choose what"],
      ["feet_flat", "posture: Feet"],
      ["axis_level", "hold: Instrument's angle"],
    ]);
  });
});

describe("taking a change back", () => {
  it("puts back what stood of whoever was changed, drops who was added, and knows nobody else", () => {
    const changes = {
      add: [{ name: "N", instrument: "tuba" as const, note: "" }],
      edit: [{ id: 1, name: "Ada Q.", instrument: "flute" as const, note: "x" }],
      instruments: [
        { id: 2, instrument: "horn" as const },
        { id: 99, instrument: "horn" as const },
      ],
      leave: [3],
    };
    expect(undoOf(changes, [7], [LONG_AGO, LATELY, NEVER])).toEqual({
      drop: [7],
      edit: [{ id: 1, name: "Ada Quillane", instrument: "clarinet", note: "" }],
      instruments: [{ id: 2, instrument: "trumpet" }],
      back: [3],
    });
  });
});

describe("groups", () => {
  const all = [LONG_AGO, LATELY, NEVER];
  const [monday, friday] = [
    { id: 5, name: "Monday", student_ids: [1, 2] },
    { id: 8, name: "Friday", student_ids: [3, 77] },
  ];
  it("are a choice where somebody is in them, and not everybody", () => {
    const house = { id: 1, name: "Everybody", student_ids: [1, 2, 3, 77] };
    expect(choices([house, monday, friday, { id: 9, name: "left", student_ids: [77] }], all)).toEqual([monday, friday]);
  });
  it("show who is in them, and come one after the other", () => {
    expect(inGroup(all, friday)).toEqual([NEVER]);
    expect(inGroup(all, null)).toEqual(all);
    expect([null, 5, 8].map((shown) => nextGroup([monday, friday], shown))).toEqual([5, 8, null]);
  });
});
