import { expect, test } from "vitest";

import { chosenDays, goneWords, goWords, wordsOf } from "../src/people/keeping";

test("a time to keep clips is said as it is meant, and sent in days", () => {
  expect([null, 28, 91, 40].map(wordsOf)).toEqual(["until somebody deletes them", "four weeks", "a term, 13 weeks", "40 days"]);
  expect(["", "28"].map(chosenDays)).toEqual([null, 28]);
});

test("what goes is said before and after", () => {
  expect([0, 1, 12].map(goWords)).toEqual([
    "Nothing is older than that now.",
    "Clip and stills of one take are older than that and go at once.",
    "Clip and stills of 12 takes are older than that and go at once.",
  ]);
  expect([0, 3].map(goneWords)).toEqual(["Kept so from now on.", "Kept so from now on. Clip and stills of 3 takes were deleted."]);
});
