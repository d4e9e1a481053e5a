import { expect, test } from "vitest";

import type { Ticks } from "../src/api/client";
import { afterWords } from "../src/take/CueSaid";
import { around } from "../src/take/Still";
import { lookedWords, markOf, nextState, shownOf, stateWords } from "../src/take/ticks";

test("a tap goes from not looked at over fine and not yet back again", () => {
  expect([null, "fine" as const, "not_yet" as const].map(nextState)).toEqual(["fine", "not_yet", null]);
  expect([stateWords(null), stateWords("fine"), stateWords("not_yet")]).toEqual(["not looked at", "fine", "not yet"]);
  expect([markOf("fine"), markOf("not_yet")]).toEqual(["steady", "work"]);
});

test("what was looked at is counted, whatever was seen", () => {
  const item = (key: string, state: Ticks["items"][number]["state"]) => ({
    key,
    near: "mouth" as const,
    spot: { ahead: 0, beside: 0, up: 0 },
    title: key,
    fine: "f",
    wrong: "w",
    state,
  });
  expect(lookedWords({ items: [item("a", "fine"), item("b", "not_yet"), item("c", null)] })).toBe("2 of 3 looked at");
});

test("a close-up stays inside the picture, and is never wider than it", () => {
  const clip = { width_px: 960, height_px: 540 };
  expect(around([480, 270], 100, 1, clip)).toEqual({ x: 430, y: 220, width: 100 });
  expect(around([10, 535], 100, 1, clip)).toEqual({ x: 0, y: 440, width: 100 });
  expect(around([480, 270], 4000, 1, clip)).toEqual({ x: 210, y: 0, width: 540 });
});

test("what came after a cue is counted beside what came without one", () => {
  expect(afterWords({ better_after: 4, after: 5, better_without: 1, without: 3 })).toBe(
    "better after it 4 of 5 times, without a cue 1 of 3",
  );
  expect(afterWords({ better_after: 0, after: 1, better_without: 0, without: 0 })).toBe("better after it 0 of 1 time");
  expect(afterWords({ better_after: 0, after: 0, better_without: 2, without: 2 })).toBe("without a cue 2 of 2");
  expect(afterWords({ better_after: 0, after: 0, better_without: 0, without: 0 })).toBe("");
});

test("the instrument at rest and the back are looked at where the clip shows them", () => {
  const near = (...parts: string[]) => ({ items: parts.map((one) => ({ near: one })) }) as unknown as Parameters<typeof shownOf>[0];
  const left = (rest: boolean, back: boolean) => shownOf(near("mouth", "back", "rest"), { rest, back }).items.map((one) => one.near);
  expect([left(true, true), left(false, true), left(true, false)]).toEqual([
    ["mouth", "back", "rest"],
    ["mouth", "back"],
    ["mouth", "rest"],
  ]);
});
