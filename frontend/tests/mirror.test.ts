import { expect, test } from "vitest";

import type { Card, MirrorOut } from "../src/api/client";
import { askedAfter, feltWords, QUESTIONS } from "../src/film/felt";
import { askedOf, lanesOf, SHOWN_S } from "../src/mirror/lanes";
import { faceDrawn, onFace, placeOf, sideOf } from "../src/mirror/place";

const PLACE = { left: 100, right: 500, top: 50, bottom: 350 };
const CARD: Card = { inhale_beats: 4, pause_beats: 0, exhale_beats: 4, empty_beats: 0, tempo_bpm: 60, cycles: 3, countin_beats: 4 };
const T = Array.from({ length: 81 }, (_, i) => 20 + i / 10);
const wave = (size: number) => T.map((t) => size * (1 - Math.cos(t)));
const SHOWN: MirrorOut = { state: "seen", title: "", do: "", t_s: T, abdomen: wave(2), chest: wave(1), shoulder: [], at: {} };

test("the newest stands at the right edge, the oldest at the left, whatever the clock says", () => {
  const [, chest, abdomen] = lanesOf(SHOWN, PLACE);
  expect(abdomen!.points.at(-1)!.x).toBeCloseTo(PLACE.right);
  expect(chest!.points[0]!.x).toBeCloseTo(PLACE.right - (8 / SHOWN_S) * 400);
  expect(abdomen!.tip).toEqual(abdomen!.points.at(-1));
});

test("all lanes share one scale and stay in their places, top to bottom; what is hidden has no trace and no pen", () => {
  const lanes = lanesOf(SHOWN, PLACE);
  expect(lanes.map(({ lane }) => lane)).toEqual(["shoulder", "chest", "abdomen"]);
  const height = (i: number) => lanes[i]!.base - Math.min(...lanes[i]!.points.map(({ y }) => y));
  expect(height(2) / height(1)).toBeCloseTo(2, 1);
  expect(lanes[2]!.base).toBeLessThanOrEqual(PLACE.bottom + 1e-6);
  expect(lanes[0]).toMatchObject({ points: [], tip: null });
});

test("small noise is not drawn large", () => {
  const still = { ...SHOWN, abdomen: T.map((_, i) => 0.01 * (i % 2)), chest: T.map(() => 0) };
  const abdomen = lanesOf(still, PLACE)[2]!;
  expect(Math.max(...abdomen.points.map(({ y }) => Math.abs(y - abdomen.base)))).toBeLessThan(4);
});

test("asked breaths stand at the card's own beats on the page's clock; nothing is asked before the count began", () => {
  expect(askedOf(CARD, null, 30, PLACE)).toEqual([]);
  const [first] = askedOf(CARD, 22_000, 30, PLACE); // the first inhale is due at 26 s
  expect(first!.from).toBeCloseTo(PLACE.right - (4 / SHOWN_S) * 400);
  expect(first!.full).toBeCloseTo(PLACE.right);
});

test("what was felt is said in the words it was asked in", () => {
  expect(feltWords("where", "unsure")).toBe("don't know");
  expect(feltWords("easier", "low")).toBe("");
  expect(askedAfter("easier", false)).toBeNull(); // easier than what?
  expect([askedAfter("easier", true)?.answers.length, askedAfter("where", false)?.answers.length]).toEqual([3, 3]);
  expect(Object.values(QUESTIONS).every(({ answers }) => answers.length === 3)).toBe(true);
});

test("a ring set on a face goes with it: moved, tilted and nearer, it stays on the same place of the face", () => {
  const face = faceDrawn({ x: 300, y: 200 }, { x: 250, y: 200 }, { x: 300, y: 280 });
  const ring = onFace(face, { x: 280, y: 290 });
  expect(ring.across).toBeCloseTo(0.2);
  expect(ring.down).toBeCloseTo(0.9);
  expect(placeOf(face, ring)).toEqual({ x: expect.closeTo(280), y: expect.closeTo(290) });
  const nearer = faceDrawn({ x: 400, y: 100 }, { x: 300, y: 100 }, { x: 400, y: 260 });
  expect(placeOf(nearer, ring)).toEqual({ x: expect.closeTo(360), y: expect.closeTo(280) });
  const tilted = faceDrawn({ x: 300, y: 200 }, { x: 300, y: 150 }, { x: 220, y: 200 });
  expect(placeOf(tilted, ring)).toEqual({ x: expect.closeTo(210), y: expect.closeTo(180) });
});

test.each([
  [0.02, "middle"],
  [0.2, "left"],
  [-0.2, "right"],
] as const)("a ring %f eye distances to the player's left lies %s of the line, as in a mirror", (across, side) => {
  expect(sideOf({ across, down: 1 })).toBe(side);
});
