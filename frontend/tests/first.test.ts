import { beforeEach, expect, test, vi } from "vitest";

import { keepRun, keptRun, saidMinutes, toComeOf, wedgesOf, withDone, type Run } from "../src/first/run";

const MINUTE = 60_000;
const kept = new Map<string, string>();
beforeEach(() => {
  kept.clear();
  vi.stubGlobal("localStorage", {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
  });
});
const RUN: Run = { began_ms: 1000, done_ms: { name: 1000 + MINUTE / 2, account: 1000 + MINUTE, questions: 1000 + 2 * MINUTE } };

test("what is done is as long as it took, in the order it was done; what is to come begins now", () => {
  const wedges = wedgesOf(RUN, 1000 + 3 * MINUTE);
  expect(wedges.map(({ step, done }) => [step, done])).toEqual([
    ["name", true],
    ["account", true],
    ["questions", true],
    ["class", false],
    ["lesson", false],
  ]);
  expect(wedges.slice(0, 3).map(({ from_min, to_min }) => [from_min, to_min])).toEqual([
    [0, 0.5],
    [0.5, 1],
    [1, 2],
  ]);
  expect(wedges[3]!.from_min).toBe(3);
  expect(wedges[4]!.from_min).toBe(wedges[3]!.to_min);
});

test("a step is done once, and stays done when its page says otherwise later", () => {
  const later = withDone(RUN, { class: true, name: true }, 5 * MINUTE);
  expect(later.done_ms).toEqual({ ...RUN.done_ms, class: 5 * MINUTE });
  expect(withDone(later, { class: false }, 6 * MINUTE)).toBe(later);
});

test("a run is kept over a reload, and is none when it is over, was left for an hour, or cannot be read", () => {
  expect(keptRun(0)).toBeNull();
  keepRun(RUN);
  expect(keptRun(1000 + MINUTE)).toEqual(RUN);
  expect(keptRun(1000 + 61 * MINUTE)).toBeNull();
  keepRun(withDone(RUN, { class: true, lesson: true }, 3 * MINUTE));
  expect(keptRun(4 * MINUTE)).toBeNull();
  kept.set("brevin-first", "{");
  expect(keptRun(0)).toBeNull();
});

test.each([
  [0.4, "24 s"],
  [1, "1 min 0 s"],
  [2.67, "2 min 40 s"],
])("%f minutes are said as %s", (minutes, said) => {
  expect(saidMinutes(minutes)).toBe(said);
});

test("what is to come counts the letters, the first to film and their minutes", () => {
  expect(toComeOf(28, 28)).toEqual([
    ["letter about filming", "28 to hand out"],
    ["first 5 to film", "5 × 1.5 = 7.5 min, once agreed"],
    ["camera on its stand", "2.5 m from the chair"],
  ]);
  expect(toComeOf(1, 0).map(([, words]) => words)).toEqual(["every answer is there", "1 × 1.5 = 1.5 min", "2.5 m from the chair"]);
});
