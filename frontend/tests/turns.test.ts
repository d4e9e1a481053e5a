import { expect, test } from "vitest";

import type { Edits, Report } from "../src/api/client";
import { BEAT_ONE, gripsOf, isMove, putRight, withMove } from "../src/take/turns";

const NONE: Edits = { player: null, first_inhale_s: null, turns: [], line: null };
const breath = (from: number) => ({ inhale_start_s: from, inhale_end_s: from + 2, exhale_start_s: from + 2.1, exhale_end_s: from + 5 });
const REPORT = {
  breaths: [breath(4), { ...breath(10), inhale_end_s: null }],
  beats: { first_inhale_s: 4.1, tempo_bpm: 60 },
  clip: { duration_s: 20 },
} as unknown as Report;

test("a turn moves between those beside it, beat one anywhere in the clip", () => {
  const grips = gripsOf(REPORT, 0, NONE);
  expect(grips.map(({ key, least_s, most_s }) => [key, least_s, most_s])).toEqual([
    ["inhale_start", 0, 6],
    ["inhale_end", 4, 6.1],
    ["exhale_start", 6, 9],
    ["exhale_end", 6.1, 10],
    [BEAT_ONE, 0, 20],
  ]);
  expect(gripsOf(REPORT, 1, NONE).map(({ key }) => key)).toEqual(["inhale_start", "exhale_start", "exhale_end", BEAT_ONE]); // no handle where nothing was read
  expect(gripsOf({ ...REPORT, beats: { ...REPORT.beats, first_inhale_s: null } }, 0, NONE)).toHaveLength(4);
});

test("a turn that is moved again keeps where the reading had put it, another one is a move of its own", () => {
  const once = withMove({ ...NONE, player: 1 }, "inhale_end", 6, 6.05);
  expect(once).toEqual({ ...NONE, player: 1, turns: [{ turn: "inhale_end", was_s: 6, t_s: 6.05 }] });
  expect(withMove(once, "inhale_end", 6, 6.2).turns).toEqual([{ turn: "inhale_end", was_s: 6, t_s: 6.2 }]); // before the first move was judged
  const twice = withMove(once, "inhale_end", 6.05, 5.9);
  expect(twice.turns).toEqual([{ turn: "inhale_end", was_s: 6, t_s: 5.9 }]);
  expect(withMove(twice, "inhale_end", 12, 12.2).turns).toHaveLength(2); // that of another breath
  expect(gripsOf({ ...REPORT, breaths: [{ ...REPORT.breaths[0]!, inhale_end_s: 5.9 }] }, 0, twice)[1]!.byHand).toBe(true);
  expect(withMove(twice, BEAT_ONE, 4.1, 5)).toEqual({ ...twice, first_inhale_s: 5 });
});

test("what counts as put right, and what is too little to be a move", () => {
  expect([putRight(NONE), putRight({ ...NONE, player: 1 }), putRight({ ...NONE, first_inhale_s: 3 })]).toEqual([false, false, true]);
  expect([isMove(4, 4.005), isMove(4, 4.02), isMove(4, 3.9)]).toEqual([false, true, true]);
});
