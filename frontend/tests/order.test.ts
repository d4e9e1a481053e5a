import { expect, test } from "vitest";

import type { Lesson, Take, Today } from "../src/api/client";
import { onwardOf } from "../src/take/useOnward";
import { inOrder, movedTo, nextAfter, nextOf } from "../src/shared/order";

test("a chair moves to its place, the others close up, and the ends hold", () => {
  expect(movedTo([1, 2, 3, 4], 1, 2)).toEqual([2, 3, 1, 4]);
  expect(movedTo([1, 2, 3, 4], 4, 0)).toEqual([4, 1, 2, 3]);
  expect(movedTo([1, 2, 3], 2, -5)).toEqual([2, 1, 3]);
  expect(movedTo([1, 2, 3], 1, 99)).toEqual([2, 3, 1]);
});

const seat = (id: number, more: object = {}) => ({
  id,
  place: id,
  away: "",
  take: null,
  check: { card: "4-0-4@72x3" },
  student: { id: 10 + id, name: `Child${id} Of Nowhere`, may_film_until: "2030-01-01" },
  ...more,
});
const lessonOf = (...seats: object[]) => ({ seats }) as unknown as Lesson;
const READ = { id: "t1", state: "read" };

test("a line is drawn as it was put before it is kept: minutes and places stay where they are, a chair that came since is last", () => {
  const lesson = lessonOf(seat(1, { minute: 0 }), seat(2, { minute: 2 }), seat(3, { minute: 4 }), seat(4, { minute: 6 }));
  const drawn = inOrder(lesson, [3, 1, 2]);
  expect(drawn.seats.map(({ id, place, minute }) => [id, place, minute])).toEqual([
    [3, 1, 0],
    [1, 2, 2],
    [2, 3, 4],
    [4, 4, 6],
  ]);
  expect(lesson.seats.map(({ id }) => id)).toEqual([1, 2, 3, 4]);
});

test("who waits comes next: there, allowed, without a clip that could be read, and not on its way", () => {
  const lesson = lessonOf(
    seat(1, { take: READ }),
    seat(2, { away: "not_here" }),
    seat(3, { student: { id: 13, name: "Nobody", may_film_until: null } }),
    seat(4),
    seat(5, { take: { id: "t5", state: "failed" } }),
    seat(6),
  );
  expect([nextOf(lesson, [])?.id, nextOf(lesson, [4])?.id, nextOf(lesson, [4], lesson.seats[4])?.id]).toEqual([4, 5, 6]);
  expect([nextAfter(lesson, lesson.seats[3]!)?.id, nextAfter(lesson, lesson.seats[5]!)?.id]).toEqual([5, 4]);
  expect(nextAfter(lessonOf(seat(1)), lessonOf(seat(1)).seats[0]!)).toBeNull();
});

test("from a take the next try is one tap away, or whoever comes next", () => {
  const take = { id: "t1", try_number: 2, student: { id: 11, name: "Child1 Of Nowhere" } } as unknown as Take;
  const today = (...seats: object[]) => ({ lesson: lessonOf(...seats) }) as unknown as Today;
  const both = onwardOf(take, today(seat(1, { take: READ }), seat(2)), []);
  expect([both.again, both.next.words, both.next.short]).toEqual([
    { seat: 1, words: "Film try 3", withoutIt: null },
    "Next: Child2 Of Nowhere",
    "Next: Child2",
  ]);
  expect(onwardOf(take, today(seat(1)), []).again?.words).toBe("Film Child1"); // an older take's student
  const held = { check: { card: "4-0-4@72x3", with_instrument: true, kind: "counted_breathing" } };
  const player = { student: { id: 11, name: "Child1", instrument: "alto_sax", may_film_until: "2030-01-01" } };
  expect(onwardOf(take, today(seat(1, { ...held, ...player })), []).again?.withoutIt).toBe("Film without the alto saxophone");
  const up = { check: { ...held.check, kind: "hold" } };
  expect(onwardOf(take, today(seat(1, { ...up, ...player })), []).again?.withoutIt).toBeNull(); // a hold without it is none
  for (const never of [{ away: "not_today" }, { check: { card: null } }, { student: { id: 11, name: "A", may_film_until: null } }])
    expect(onwardOf(take, today(seat(1, { take: READ, ...never })), []).again).toBeNull();
  expect(onwardOf(take, undefined, [])).toEqual({ again: null, next: { words: "Today", short: "Today" } });
});
