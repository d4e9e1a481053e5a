import { expect, it } from "vitest";

import type { Take } from "../src/api/client";
import { roundSeconds, secondsLeft, waitingWords } from "../src/today/waiting";

const take = (id: string, state: Take["state"], minute: number, progress = 0, filmed = false) =>
  ({ id, state, progress, filmed, stage: "following the trunk", made_at: `2026-11-26T10:0${minute}:00Z` }) as Take;
const first = take("a", "reading", 1, 0.75);
const second = take("b", "queued", 2);
const third = take("c", "queued", 3);
const all = [third, second, first, take("d", "read", 0)];

it("says the place in the queue by who came first, and what is left of all before", () => {
  expect(secondsLeft(second, all, 8)).toBeCloseTo(2 + 8);
  expect(secondsLeft(third, all, 8)).toBeCloseTo(2 + 16);
  expect(waitingWords(second, all, 8)).toBe("first in the queue, about 10 s");
  expect(waitingWords(third, all, 8)).toBe("second in the queue, about 20 s");
});

it("says of one being read what is being done and what is left", () =>
  expect(waitingWords(first, all, 8)).toBe("following the trunk, about 2 s"));

it("says nothing of one that waits for nothing, and never nought seconds", () => {
  expect(waitingWords(take("d", "read", 0), all, 8)).toBe("");
  expect(roundSeconds(0)).toBe(1);
  expect(roundSeconds(4.2)).toBe(5);
  expect(roundSeconds(23)).toBe(25);
});

it("puts what was filmed in the page before files that were added earlier", () => {
  const filmed = take("e", "queued", 5, 0, true);
  const again = take("f", "queued", 6, 0, true);
  const whole = [...all, again, filmed];
  expect(waitingWords(filmed, whole, 8)).toBe("first in the queue, about 10 s");
  expect(waitingWords(again, whole, 8)).toBe("second in the queue, about 20 s");
  expect(waitingWords(second, whole, 8)).toBe("third in the queue, about 25 s");
});
