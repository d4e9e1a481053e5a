import { expect, test } from "vitest";

import type { Examples, Preview, Proposed } from "../src/api/client";
import { agreesWords, bothSides, placeOf, sortedBy } from "../src/method/example";
import { changeWords, ifWords, stayWords, tried } from "../src/method/schools";

const take = (take_id: string, student: string, value: number, fine: boolean) => ({
  take_id,
  student,
  value,
  fine,
  abdomen: 2,
  chest: 1,
  shoulder: null,
});
const SHOWN: Examples = {
  criterion: "abdomen_leads",
  unit: "of the breath",
  fine: "above",
  now: 0.5,
  criteria: { abdomen_leads: "Abdomen leads" },
  examples: [take("a", "Pavel Horacek", 0.37, false), take("b", "Hana Morikawa", 0.56, true), take("c", "Bram Oosterveld", 0.79, true)],
};
const LINE: Proposed = { value: 0.45, agrees: 2, agrees_now: 1, misjudged: ["b"], count: 3, takes: 46, changed: [] };

test("takes lie as the line has them until the teacher moves one", () => {
  expect(sortedBy(SHOWN, {})).toEqual({ a: false, b: true, c: true });
  expect(sortedBy(SHOWN, { b: false })).toEqual({ a: false, b: false, c: true });
  expect([bothSides({ a: true, b: false }), bothSides({ a: true, b: true })]).toEqual([true, false]);
});

test("the line stands before the first take above it, and after the last where all lie under it", () => {
  expect([0.2, 0.45, 0.6, 0.9].map((at) => placeOf(SHOWN.examples, at))).toEqual([0, 1, 2, 3]);
});

test("what the line agrees with, whom it would call otherwise, and what it would change is said", () => {
  const sorted = sortedBy(SHOWN, { b: false });
  expect(agreesWords(SHOWN, sorted, LINE)).toBe(
    "A line at 45 % belly agrees with 2 of your 3; it would call Hana's take fine. The line now, 50 % belly, agrees with 1. Moving it changes 3 of 46 takes.",
  );
  expect(agreesWords(SHOWN, sorted, { ...LINE, misjudged: [], count: 0 })).toContain("Moving it changes no stored take.");
  expect(agreesWords(SHOWN, sorted, null)).toBe("The line now: 50 % belly.");
  expect(agreesWords(SHOWN, { a: true, b: true, c: true }, null)).toContain("at least one take up and one down");
});

const PREVIEW: Preview = {
  takes: 46,
  overruled: 2,
  ways: [
    { question: "breathing_in", school: "belly_only", strictness: null, count: 11, changed: [] },
    { question: null, school: null, strictness: "milder", count: 0, changed: [] },
  ],
};

test("a way is found among those that were tried, and the one that is followed is not there", () => {
  expect(tried(PREVIEW, { question: "breathing_in", school: "belly_only" })?.count).toBe(11);
  expect(tried(PREVIEW, { strictness: "milder" })?.count).toBe(0);
  expect(tried(PREVIEW, { question: "breathing_in", school: "belly_then_ribs" })).toBeUndefined();
  expect(tried(undefined, { strictness: "milder" })).toBeUndefined();
});

test("a preview says what would change and what stays", () => {
  expect([changeWords(11, 46), changeWords(0, 46), changeWords(1, 1), changeWords(0, 1), changeWords(0, 0)]).toEqual([
    "11 of 46 takes would change.",
    "All 46 takes stay as they are.",
    "1 of 1 take would change.",
    "The one take stays as it is.",
    "No take has been read yet.",
  ]);
  expect(stayWords(11, PREVIEW)).toBe("35 stay as they are; where you overruled, in 2, your word stands");
  expect([stayWords(46, { ...PREVIEW, overruled: 0 }), stayWords(45, { ...PREVIEW, overruled: 0 })]).toEqual([
    "no other stays as it is",
    "1 stays as it is",
  ]);
  expect(ifWords({ question: "breathing_in", school: "belly_only" })).toEqual(["If breathing in were judged as", "only the belly"]);
  expect(ifWords({ strictness: "stricter" })).toEqual(["If it were judged", "stricter"]);
});
