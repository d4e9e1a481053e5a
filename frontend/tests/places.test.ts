import { expect, test } from "vitest";

import type { Report } from "../src/api/client";
import { saysWhere, unfollowed } from "../src/take/Places";

const place = (believed: boolean) => ({ x_px: 1, y_px: 2, outline: true, believed });
const reportOf = (looked?: object) => ({ player: { looked } }) as unknown as Report;

test("a lane is unfollowed where it was looked for and nothing was believed", () => {
  expect(unfollowed(reportOf({ abdomen: [place(false), place(true)], chest: [place(false)], shoulder: [] }))).toEqual([
    "shoulder",
    "chest",
  ]);
});

test("a lane that was not looked for is neither", () => {
  expect(unfollowed(reportOf({ abdomen: [place(true)] }))).toEqual([]);
});

test("a reading of an older release does not say where it looked", () => {
  expect([saysWhere(reportOf()), saysWhere(reportOf({})), saysWhere(reportOf({ chest: [] }))]).toEqual([false, false, false]);
  expect(saysWhere(reportOf({ chest: [place(false)] }))).toBe(true);
});
