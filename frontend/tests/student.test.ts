import { expect, test } from "vitest";

import type { JudgedRow, Report, Result, Take } from "../src/api/client";
import { daysOf, mostOf, rowsOf, stateOf, strandOf, typicalOf, windowOf } from "../src/student/days";

const take = (id: string, made_at: string, state = "read") => ({ id, made_at, state }) as Take;
const TAKES = [
  take("d", "2026-11-29T09:10:00Z", "failed"),
  take("c", "2026-11-29T09:00:00Z"),
  take("b", "2026-11-22T09:00:00Z", "failed"),
  take("a", "2026-11-15T09:00:00Z"),
];

test("a day counts by its last take that was read, the others stay at hand", () => {
  const days = daysOf(TAKES, "UTC");
  expect(days.map(({ take: { id }, others }) => [id, others.map((one) => one.id)])).toEqual([
    ["a", []],
    ["b", []],
    ["c", ["d"]],
  ]);
  expect(
    [windowOf(days, 2, 0), windowOf(days, 2, 1), windowOf(days, 9, 0)].map((shown) => shown.map(({ take: { id } }) => id).join("")),
  ).toEqual(["bc", "ab", "abc"]);
});

test("a day is the programme's own, whatever clock the screen goes by", () => {
  const evening = [take("a", "2026-11-15T22:30:00Z"), take("b", "2026-11-15T23:30:00Z")];
  expect(daysOf(evening, "Europe/Lisbon").map(({ day }) => day)).toEqual(["2026-11-15"]);
  expect(daysOf(evening, "Europe/Paris").map(({ day }) => day)).toEqual(["2026-11-15", "2026-11-16"]);
});

test("what was not steady comes first, with the teacher's own word in it, and what nobody asked for is no row", () => {
  const judged = ["pause", "shoulders_still", "with_count", "wrist_left"].map(
    (criterion) => ({ criterion, title: criterion, unit: "", area: "breath" }) as JudgedRow,
  );
  const result = (take_id: string, criterion: string, state: string, overruled = "") =>
    ({ take_id, criterion, state, overruled }) as Result;
  const results = [
    result("a", "pause", "work", "steady"),
    result("c", "pause", "steady"),
    result("c", "shoulders_still", "unreadable"),
    result("a", "with_count", "watch"),
    result("x", "wrist_left", "work"), // of a day that is not shown
  ];
  const rows = rowsOf(daysOf(TAKES, "UTC"), results, judged);
  expect(rows.map(({ criterion }) => criterion)).toEqual(["with_count", "pause", "shoulders_still"]);
  expect(rows[1]!.cells.map((cell) => cell && stateOf(cell))).toEqual(["steady", null, "steady"]);
});

test("a typical breath is the middle one that was read whole, its lanes over their rest on one scale for all", () => {
  const whole = (from: number) => ({ inhale_start_s: from, inhale_end_s: from + 1, exhale_start_s: from + 1, exhale_end_s: from + 2 });
  const report = {
    breaths: [whole(1), { ...whole(4), inhale_end_s: null }, whole(7), whole(10)],
    trace: { t_s: [0, 7, 8, 9, 20], shoulder: [], chest: [1, 1, 4, 1, 1], abdomen: [0, 0, 1, 0, 0] },
  } as unknown as Report;
  expect(typicalOf(report)).toEqual({ from: 7, full: 8, leave: 8, to: 9 });
  expect(strandOf(report, "chest")).toEqual([
    { t: 0, pct: 0 },
    { t: 0.5, pct: 3 },
    { t: 1, pct: 0 },
  ]);
  expect([strandOf(report, "shoulder"), mostOf([report]), mostOf([])]).toEqual([[], 3, 2]);
  expect(typicalOf({ ...report, breaths: [] })).toBeNull();
});
