import { expect, test } from "vitest";

import type { Report, Ticks } from "../src/api/client";
import { closeUpsOf, showsBack } from "../src/take/closeUps";
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

const spot = { ahead: 0.1, beside: 0, up: 0 };
const item = (near: string) => ({ key: near, near, spot }) as unknown as Ticks["items"][number];
const still = (kind: string) => ({ kind, t_s: 2, mouth_px: [500, 200], left_hand_px: [560, 220], right_hand_px: [540, 240], lines_px: [] });
const held = (kinds: string[], more: object = {}) =>
  ({
    view: "side-right",
    position: "seated",
    clip: { width_px: 1280, height_px: 720 },
    scale: { trunk_px: 200 },
    player: { hip_px: [480, 420], forward: [1, 0] },
    hold: { hands: { stills: kinds.map(still) } },
    ...more,
  }) as unknown as Report;

test("each part of the still is shown large with its own rows, numbered as in the list", () => {
  const shown = closeUpsOf(["mouth", "left_hand", "right_hand", "back", "rest"].map(item), held(["rest", "playing"]));
  expect(shown.map(({ words, places }) => [words, places.map(({ number }) => number)])).toEqual([
    ["mouth", [1]],
    ["hands", [2, 3]],
    ["back", [4]],
    ["rest", [5]],
  ]);
  for (const { places } of shown) for (const { at } of places) expect(at.every((value) => value > 0 && value < 100)).toBe(true);
  expect(shown[3]!.part.width).toBe(2 * shown[0]!.part.width);
});

test("what the clip does not show is not looked at", () => {
  expect(closeUpsOf([item("mouth"), item("rest")], held(["playing"])).map(({ words }) => words)).toEqual(["mouth"]);
  expect(closeUpsOf([item("mouth")], held(["playing"], { player: null }))).toEqual([]);
  expect([{}, { view: "front" }, { position: "standing" }].map((more) => showsBack(held(["playing"], more)))).toEqual([true, false, false]);
  expect(showsBack(held(["rest"]))).toBe(false);
});
