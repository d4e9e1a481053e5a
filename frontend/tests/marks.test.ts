import { expect, test } from "vitest";

import { marksAround, onStill, placeOf, type Spot } from "../src/take/marks";

const corners = { ahead: 0.07, beside: 0.06, up: 0.02 };
const close = (one: [number, number], other: [number, number]) =>
  expect(Math.hypot(one[0] - other[0], one[1] - other[1])).toBeLessThan(1e-9);

test("a place is ahead of the mouth on the side the player faces, and beside it from the front", () => {
  close(placeOf([400, 200], corners, { trunk_px: 100, ahead: 1 }), [407, 198]);
  close(placeOf([400, 200], corners, { trunk_px: 100, ahead: -1 }), [393, 198]);
  close(placeOf([400, 200], corners, { trunk_px: 100, ahead: 0 }), [406, 198]);
});

test("a place is told in hundredths of the close-up, and never outside it", () => {
  close(onStill([430, 260], { x: 400, y: 200, width: 120 }), [25, 50]);
  close(onStill([10, 900], { x: 400, y: 200, width: 120 }), [0, 100]);
});

const FACE: Spot[] = [
  [52, 48],
  [46, 48],
  [38, 40],
  [46, 62],
  [55, 50],
];
const HANDS: Spot[] = [
  [30, 40],
  [30, 40],
  [70, 55],
  [70, 55],
  [70, 55],
];

test.each([FACE, HANDS, [[50, 50] as Spot], [] as Spot[], [...FACE, [50, 30] as Spot]].map((places) => ({ places })))(
  "marks keep off what is looked at, off each other and on the still: $places.length",
  ({ places }) => {
    const spots = marksAround(places);
    expect(spots).toHaveLength(places.length);
    const apart = (a: Spot, b: Spot) => Math.hypot(a[0] - b[0], a[1] - b[1]);
    for (const [i, spot] of spots.entries()) {
      expect(Math.min(...places.map((place) => apart(place, spot)))).toBeGreaterThan(12);
      expect(spot.every((value) => value > 5 && value < 85 + 5)).toBe(true);
      for (const other of spots.slice(i + 1)) expect(apart(spot, other)).toBeGreaterThan(26);
    }
  },
);

test("leads to both sides do not cross", () => {
  const spots = marksAround(HANDS);
  const mean = (from: number, to: number) => spots.slice(from, to).reduce((sum, [x]) => sum + x, 0) / (to - from);
  expect(mean(0, 2)).toBeLessThan(mean(2, 5));
});
