import { expect, test } from "vitest";

import type { Report } from "../src/api/client";
import { outlineAt, saysWhere, unfollowed } from "../src/take/Places";

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

test("the outline drawn is the one that was looked at nearest to the moment", () => {
  const line = (x: number) => [
    [
      [x, 1],
      [x, 2],
    ],
  ];
  const report = { player: { outlines: [1, 4, 9].map((t_s) => ({ t_s, lines_px: line(t_s) })) } } as unknown as Report;
  expect([0, 3, 6, 20].map((t_s) => outlineAt(report, t_s))).toEqual(["M1,1 L1,2", "M4,1 L4,2", "M4,1 L4,2", "M9,1 L9,2"]);
  expect(outlineAt(reportOf({}), 3)).toBe("");
  const front = { player: { outlines: [{ t_s: 1, lines_px: [...line(3), ...line(5)] }] } } as unknown as Report;
  expect(outlineAt(front, 1)).toBe("M3,1 L3,2 M5,1 L5,2");
});
