import { expect, test } from "vitest";

import type { Report } from "../src/api/client";
import { onBody, onTrunk } from "../src/take/onBody";

const reportOf = (more: object = {}) =>
  ({ scale: { trunk_px: 100 }, player: { hip_px: [200, 300], up: [0, -1], forward: [1, 0], ...more } }) as unknown as Report;
const axis = (t_s: number, places: number[][]) => ({ t_s, lines_px: [places] });
const upright = [0, 25, 50, 75, 100].map((up) => [200, 300 - up]);
const leaning = [0, 25, 50, 75, 100].map((up) => [200 + up / 2, 300 - up]);

test("a body that keeps its place has each place where it was at first, and back again", () => {
  const toPx = onBody(reportOf())!(7);
  expect(toPx(0.5, 0.2)).toEqual([220, 250]);
  expect(onTrunk(reportOf(), 220, 250)).toEqual({ up: 0.5, ahead: 0.2 });
});

test("a trunk that sinks takes its places along, ahead at a right angle to where it leans", () => {
  const at = onBody(reportOf({ axes: [axis(0, upright), axis(1, leaning), axis(2, leaning)] }))!;
  expect(at(0)(0.5, 0.2).map(Math.round)).toEqual([220, 250]);
  const [x, y] = at(1)(0.5, 0.2);
  expect([x - 225, y - 250].map((one) => one.toFixed(2))).toEqual(["17.89", "8.94"]);
  expect(at(0.5)(1, 0)).toEqual([225, 200]);
  expect(at(9)(1.2, 0).map(Math.round)).toEqual([260, 180]);
  expect(at(1)(-0.2, 0).map(Math.round)).toEqual([190, 320]);
});

test("who faces the other way has the front there", () => {
  const at = onBody(reportOf({ forward: [-1, 0], axes: [axis(0, upright), axis(1, upright)] }))!;
  expect(at(0.5)(0.5, 0.2).map(Math.round)).toEqual([180, 250]);
});

test("nobody found has no places", () => {
  expect(onBody({ player: null, scale: null } as unknown as Report)).toBeNull();
});
