import { expect, test } from "vitest";

import type { Report } from "../src/api/client";
import { capPath, frontOf, markedAt, pathsOf, pushed, type Spot } from "../src/take/bodyLine";

const TRUNK = 100;
const place = (up: number, ahead: number, believed = true, outline = true) => ({
  x_px: 200 + ahead * TRUNK,
  y_px: 300 - up * TRUNK,
  outline,
  believed,
});
const reportOf = (looked: object, more: object = {}) =>
  ({
    view: "side-right",
    scale: { trunk_px: TRUNK },
    player: { hip_px: [200, 300], up: [0, -1], forward: [1, 0], looked },
    verdicts: [],
    ...more,
  }) as unknown as Report;
const heights = (from: number, to: number) => Array.from({ length: Math.round((to - from) / 0.03) + 1 }, (_, i) => from + i * 0.03);
const upright = (up: number, ahead: number) => [200 + 100 * ahead, 300 - 100 * up] as const;
const seenFrom = (front: Spot[]) => [front.find(({ seen }) => seen)?.up ?? null, front.findLast(({ seen }) => seen)?.up ?? null];

test("the front is drawn from belly to chest through the edges that were followed", () => {
  const front = frontOf(
    reportOf({ abdomen: heights(0.2, 0.44).map((up) => place(up, 0.2)), chest: heights(0.54, 0.9).map((up) => place(up, 0.22)) }),
  );
  expect(front[0]!.up).toBeCloseTo(0.2);
  expect(front.at(-1)!.up).toBeGreaterThan(0.87);
  for (const { ahead } of front) expect(ahead).toBeGreaterThan(0.199);
  expect(front.every(({ seen }) => seen)).toBe(true);
});

test("where nothing was followed between belly and chest the front is drawn there, and not called followed", () => {
  const front = frontOf(
    reportOf({ abdomen: heights(0.2, 0.35).map((up) => place(up, 0.2)), chest: heights(0.6, 0.9).map((up) => place(up, 0.22)) }),
  );
  const between = front.filter(({ seen }) => !seen).map(({ up }) => up);
  expect(between.length).toBeGreaterThan(3);
  expect([Math.min(...between) > 0.39, Math.max(...between) < 0.57]).toEqual([true, true]);
});

test("where arms hide the chest the front leads on to the neck, and none of that is called followed", () => {
  const front = frontOf(
    reportOf({ abdomen: heights(0.2, 0.44).map((up) => place(up, 0.2)), chest: [place(0.6, 0.3, false), place(0.7, 0.05, true, false)] }),
  );
  expect(front.at(-1)!.up).toBeCloseTo(0.92);
  const [from, to] = seenFrom(front);
  expect(from).toBeCloseTo(0.2);
  expect(to).toBeLessThan(0.49);
});

test("no front is made up: not from edges that were set aside, from the surface alone, or from the front", () => {
  const belly = heights(0.2, 0.44);
  expect(frontOf(reportOf({ abdomen: belly.map((up) => place(up, 0.2, false)) }))).toEqual([]);
  expect(frontOf(reportOf({ abdomen: belly.map((up) => place(up, 0.2, true, false)) }))).toEqual([]);
  expect(frontOf(reportOf({ abdomen: belly.map((up) => place(up, 0.2)) }, { view: "front" }))).toEqual([]);
  expect(frontOf(reportOf({}, { player: null }))).toEqual([]);
});

test("a region moves its own part of the front, five times as far, and in for what goes in", () => {
  expect(pushed(0.26, { abdomen: 2 })).toBeCloseTo(0.1, 2);
  expect(pushed(0.72, { abdomen: 2 })).toBeLessThan(0.001);
  expect(pushed(0.72, { abdomen: -1, chest: 2 })).toBeCloseTo(0.1, 2);
  expect(pushed(0.26, { abdomen: -1, chest: 2 })).toBeCloseTo(-0.05, 2);
});

test("belly and chest are firm where they were followed, and the belly alone is filled", () => {
  const front: Spot[] = heights(0.2, 0.8).map((up) => ({ up, ahead: 0.2, seen: up < 0.6 }));
  const paths = pathsOf(front, { abdomen: 2, chest: 1 }, upright);
  const last = (path: string) => path.split("L").at(-1)!.split(",").map(Number);
  expect(last(paths.chest)[1]).toBeCloseTo(300 - 59, 0); // up to where it was followed
  expect(last(paths.hidden)[1]).toBeCloseTo(300 - 80, 0);
  expect(paths.filled.endsWith("Z")).toBe(true);
  expect(Math.min(...[...paths.filled.matchAll(/,([\d.]+)/g)].map(([, y]) => Number(y)))).toBeGreaterThan(300 - 49);
  expect(
    pathsOf(
      front.map((one) => ({ ...one, seen: false })),
      { abdomen: 2 },
      upright,
    ),
  ).toMatchObject({ filled: "", abdomen: "", chest: "" });
  expect(pathsOf([], { abdomen: 2 }, upright)).toMatchObject({ rest: "", filled: "", hidden: "" });
});

test("the line over the shoulder goes up with it; from the front there are two", () => {
  const top = (path: string) => Math.min(...[...path.matchAll(/,([\d.]+)/g)].map(([, y]) => Number(y)));
  const side = reportOf({});
  expect(top(capPath(side, 0, upright)) - top(capPath(side, 2, upright))).toBeCloseTo(10, 1);
  expect([side, reportOf({}, { view: "front" })].map((one) => capPath(one, 0, upright).split("M").length - 1)).toEqual([1, 2]);
});

test("a lane is marked while what was seen of it lies outside, the worst of its marks first; the count has none on the body", () => {
  const mark = (lane: string, state: string, outside = true) => ({ lane, state, outside, from_s: 2, to_s: 4 });
  const report = reportOf(
    {},
    {
      verdicts: [
        { marks: [mark("chest", "work"), mark("chest", "watch"), mark("count", "work")] },
        { marks: [mark("shoulder", "watch"), mark("abdomen", "watch", false), mark("abdomen", "steady")] },
      ],
    },
  );
  expect([...markedAt(report, 3)].toSorted()).toEqual([
    ["chest", "work"],
    ["shoulder", "watch"],
  ]);
  expect(markedAt(report, 5).size).toBe(0);
});
