import { describe, expect, it } from "vitest";

import type { ClassList, JudgedRow, Member } from "../src/api/client";
import { consentRows } from "../src/class/consent";
import { choices, inGroup, nextGroup } from "../src/class/groups";
import { leftOut, toLeaveOut } from "../src/class/spared";
import { undoOf } from "../src/class/undo";
import { lowerBy, over, placesOf, putBack, sectionsOf, sitsBeside, sitsOf, stepped } from "../src/class/seats";
import { classWords, fitting, isDue, leftWords, seenWords } from "../src/class/words";

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
  const everybody = [LONG_AGO, LATELY, NEVER, UNFILMED];
  it("is drawn row by row, who plays the same beside each other under one heading", () => {
    const rows = placesOf(everybody, [[3, 1, 4], [2]], null);
    expect(rows.map((row) => sectionsOf(row).map((one) => [one.instrument, one.at, one.places.length]))).toEqual([
      [
        ["flute", 0, 1],
        ["clarinet", 1, 1],
        ["flute", 2, 1],
      ],
      [["trumpet", 0, 1]],
    ]);
  });
  it("shows of a group only who is in it, without empty rows", () =>
    expect(placesOf([LONG_AGO], [[3, 1, 4], [2]], null).map((row) => row.map((one) => one.name))).toEqual([["Ada Quillane"]]));
  it("shows what a list would change on the chairs themselves", () => {
    const list = {
      new: [{ number: 5, name: "Eli Noor", instrument: "tuba" }],
      changed: [{ number: 3, name: "Bo Vantreen", instrument: "cornet", id: 2, was: "trumpet" }],
      elsewhere: [{ number: 2, name: "Ada Quillane", instrument: "clarinet", id: 1, was: "clarinet" }],
      left: [{ id: 3, name: "Cleo Marsh", instrument: "flute" }],
      chairs: [
        [
          { student: 3, number: null },
          { student: null, number: 2 },
        ],
        [
          { student: 1, number: null },
          { student: 2, number: null },
          { student: null, number: 3 },
          { student: null, number: 5 },
        ],
      ],
    } as unknown as ClassList;
    expect(
      placesOf([LONG_AGO, LATELY, NEVER], [[3], [1, 2]], list).map((row) => row.map((one) => [one.name, one.instrument, one.will])),
    ).toEqual([
      [
        ["Cleo Marsh", "flute", "goes"],
        ["Ada Quillane", "clarinet", "moves here"],
      ],
      [
        ["Ada Quillane", "clarinet", "moves"],
        ["Bo Vantreen", "trumpet", "moves"],
        ["Bo Vantreen", "cornet", "moves here"],
        ["Eli Noor", "tuba", "comes"],
      ],
    ]);
  });
  it("bends round the teacher's stand: the ends of a row lie lower, of a wide one more", () => {
    const floor = [0, 2, 4].map((at) => lowerBy(at, 4, 10));
    expect(floor[1]).toBe(0);
    expect(floor[0]).toBe(floor[2]);
    expect(floor[0]).toBeGreaterThan(0);
    expect(lowerBy(0, 10, 10)).toBeGreaterThan(floor[0]!);
  });
});

describe("a chair that is moved", () => {
  const rows = [[1, 2, 3], [4, 5], [6]];
  it("goes one step by an arrow key, and no farther than there is room", () => {
    expect(stepped(rows, 2, "left")).toEqual({ row: 1, chair: 1 });
    expect(stepped(rows, 1, "left")).toBeNull();
    expect(stepped(rows, 3, "right")).toBeNull();
    expect(stepped(rows, 3, "behind")).toEqual({ row: 2, chair: 3 });
    expect(stepped(rows, 4, "before")).toEqual({ row: 1, chair: 1 });
    expect(stepped(rows, 1, "before")).toBeNull();
    expect(stepped(rows, 6, "behind"), "alone in the last row").toBeNull();
    expect(stepped([[1, 2]], 1, "behind")).toEqual({ row: 2, chair: 1 });
    expect(stepped(rows, 9, "left"), "who has left since").toBeNull();
  });
  it("is put beside whom the hand is, on that side; above everybody it begins a row", () => {
    const spots = [
      { id: 1, x: 100, y: 300 },
      { id: 2, x: 180, y: 300 },
      { id: 4, x: 140, y: 200 },
    ];
    expect(over(spots, 1, 190, 305, 60)).toEqual({ id: 2, side: "after" });
    expect(over(spots, 1, 170, 290, 60)).toEqual({ id: 2, side: "before" });
    expect(over(spots, 1, 110, 205, 60)).toEqual({ id: 4, side: "before" });
    expect(over(spots, 1, 140, 120, 60)).toBeNull();
  });
  it("is put back alone, unless its row is gone with it", () => {
    expect(putBack(rows, 2)).toEqual({ sits: [{ id: 2, sits: { row: 1, chair: 2 } }] });
    expect(putBack(rows, 6)).toEqual({ rows });
  });
  it("is counted without its own chair, as whoever keeps the seats counts", () => {
    expect(sitsBeside(rows, 1, { id: 3, side: "after" })).toEqual({ row: 1, chair: 3 });
    expect(sitsBeside(rows, 6, { id: 4, side: "before" })).toEqual({ row: 2, chair: 1 });
    expect(sitsBeside(rows, 1, null)).toEqual({ row: 4, chair: 1 });
    expect(sitsBeside(rows, 2, { id: 1, side: "after" }), "where it came from").toBeNull();
    expect(sitsBeside(rows, 6, null), "alone behind all as it is").toBeNull();
    expect(sitsOf(rows, 5)).toEqual({ row: 2, chair: 2 });
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
      add: [{ name: "N", instrument: "tuba" as const, note: "", sits: null }],
      edit: [{ id: 1, name: "Ada Q.", instrument: "flute" as const, note: "x" }],
      instruments: [
        { id: 2, instrument: "horn" as const },
        { id: 99, instrument: "horn" as const },
      ],
      leave: [3],
    };
    expect(undoOf(changes, [7], [LONG_AGO, LATELY, NEVER], [[3], [1, 2]])).toEqual({
      drop: [7],
      edit: [{ id: 1, name: "Ada Quillane", instrument: "clarinet", note: "" }],
      instruments: [{ id: 2, instrument: "trumpet" }],
      back: [3],
      rows: [[3], [1, 2]],
    });
  });
});

describe("taking back what moved nobody", () => {
  it("leaves the chairs where others put them since", () => {
    const renamed = { edit: [{ id: 1, name: "Ada Q.", instrument: "clarinet" as const, note: "" }], leave: [3] };
    expect(undoOf(renamed, [], [LONG_AGO, LATELY, NEVER], [[3], [1, 2]]).rows).toEqual([]);
    const other = { edit: [{ id: 1, name: "Ada Q.", instrument: "flute" as const, note: "" }] };
    expect(undoOf(other, [], [LONG_AGO, LATELY, NEVER], [[3], [1, 2]]).rows).toEqual([[3], [1, 2]]);
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
