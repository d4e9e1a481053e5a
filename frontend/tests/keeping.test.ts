import { expect, test } from "vitest";

import { backupWords, chosenDays, goneWords, goWords, wordsOf } from "../src/people/keeping";

test("a time to keep clips is said as it is meant, and sent in days", () => {
  expect([null, 28, 91, 40].map(wordsOf)).toEqual(["until somebody deletes them", "four weeks", "a term, 13 weeks", "40 days"]);
  expect(["", "28"].map(chosenDays)).toEqual([null, 28]);
});

test("what goes is said before and after", () => {
  expect([goWords(0, null), goWords(1, 7), goWords(12, 28)]).toEqual([
    "Nothing is older than that now.",
    "Clip and stills of one take are older than a week and go at once.",
    "Clip and stills of 12 takes are older than four weeks and go at once.",
  ]);
  expect([0, 3].map(goneWords)).toEqual(["Kept so from now on.", "Kept so from now on. Clip and stills of 3 takes were deleted."]);
});

test("a backup that still holds what was deleted asks for its disk, and one at hand does not", () => {
  const made_at = "2026-05-14T10:20:00Z";
  const said = (behind: boolean, here: boolean) => backupWords({ made_at, behind, here });
  expect([said(true, false), said(true, true), said(false, true), said(false, false)].map((one) => one.alarm)).toEqual([
    true,
    false,
    false,
    false,
  ]);
  expect(said(true, false).says).toMatch(/^As of 14 May.* Plug it in/);
  expect(backupWords({ made_at: null, behind: false, here: true }).says).toMatch(/^Never made whole\./);
});
