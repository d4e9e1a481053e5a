import { expect, test } from "vitest";

import { heightOf, MARK_AT, piecesIn, standOf, type Stand } from "../src/student/curve";

test("a value stands between steady and work on the worse of its sides, less is better", () => {
  const rise = { steady_high: 1.5, work_high: 3 };
  expect(standOf(1.5, 0.3, rise)).toEqual({ at: 0, about: expect.closeTo(0.2) });
  expect([standOf(3, 0, rise)?.at, standOf(0, 0, rise)?.at]).toEqual([1, -1]);
  expect(standOf(0.35, 0, { steady_low: 0.5, work_low: 0.35 })?.at).toBeCloseTo(1);
  const both = { steady_low: -3, steady_high: 8, work_low: -8, work_high: 15 };
  expect([standOf(-8, 0, both)?.at, standOf(15, 0, both)?.at, standOf(2, 0, both)?.at]).toEqual([1, 1, expect.closeTo(-6 / 7)]);
  expect([standOf(1, 0, null), standOf(1, 0, { steady_high: 2 }), standOf(1, 0, { steady_low: 1, work_low: 1 })]).toEqual([
    null,
    null,
    null,
  ]);
});

test("up is better, and what is far off stays in the row", () => {
  expect(heightOf(-0.2)).toBeLessThan(heightOf(0.9));
  expect([heightOf(-9), heightOf(9)]).toEqual([heightOf(-0.7), heightOf(1.7)]);
});

test("the line runs from mark to mark through the columns between, dotted over a day that was not read", () => {
  const stand = (at: number): Stand => ({ at, about: 0.1 });
  const stands = [stand(1), stand(0), null, stand(0.5)];
  expect([0, 1, 2, 3].map((column) => piecesIn(stands, column).length)).toEqual([1, 2, 1, 1]);
  const [first] = piecesIn(stands, 0);
  expect([first!.from, first!.gap]).toEqual([[MARK_AT, heightOf(1)], false]);
  const [end, begin] = piecesIn(stands, 1);
  expect(end!.to).toEqual([expect.closeTo(MARK_AT), heightOf(0)]);
  expect([begin!.gap, begin!.to[0]]).toEqual([true, 1]);
  expect(first!.to[1]).toBeCloseTo(end!.from[1]); // no step where columns meet
  expect(first!.above[0]).toBeLessThan(first!.below[0]);
  expect(piecesIn([null, stand(1)], 1)).toEqual([]);
});
