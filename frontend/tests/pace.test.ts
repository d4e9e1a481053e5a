import { expect, test } from "vitest";

import type { Lesson, Seat } from "../src/api/client";
import { minuteOf, paceWords } from "../src/today/pace";

const seat = (minute: number, done: boolean, away = "") => ({ minute, away, take: done ? {} : null }) as unknown as Seat;
const lesson = (done: boolean[]) =>
  ({ starts_at: "2026-11-26T10:00:00Z", minutes: 20, seats: done.map((one, i) => seat(4 + 2 * i, one)) }) as unknown as Lesson;
const at = (minute: number) => new Date(Date.UTC(2026, 10, 26, 10, minute));

test("a lesson is on time, early or late by whole students", () => {
  expect(paceWords(lesson([false, false, false]), at(5))).toBe("on time");
  expect(paceWords(lesson([true, true, false]), at(6))).toBe("1 student early");
  expect(paceWords(lesson([false, false, false]), at(9))).toBe("2 students late");
});

test("who is not here is dealt with; before, after and at the end nothing is said", () => {
  const away = { ...lesson([true, false, false]), seats: [seat(4, true), seat(6, false, "not_here"), seat(8, false)] };
  expect(paceWords(away, at(8))).toBe("on time");
  expect(paceWords(lesson([false, false]), at(-5))).toBe("");
  expect(paceWords(lesson([false, false]), at(25))).toBe("");
  expect(paceWords(lesson([true, true]), at(5))).toBe("");
});

test("where the lesson is on its ruler is known while it is under way, and nowhere else", () => {
  expect(minuteOf(lesson([false]), at(5))).toBe(5);
  expect([at(-1), at(21)].map((now) => minuteOf(lesson([false]), now))).toEqual([null, null]);
});
