import { expect, test, vi } from "vitest";

import { looksAgain } from "../src/design/looksAgain";

test("once a window rests at another size its rules are looked at again, once, and none stays", () => {
  vi.useFakeTimers();
  const rules = ["header {}"];
  const put: string[] = [];
  const sheet = {
    cssRules: rules,
    insertRule: (rule: string, at: number) => (put.push(rule), rules.splice(at, 0, rule), at),
    deleteRule: (at: number) => void rules.splice(at, 1),
  };
  const page = Object.assign(new EventTarget(), { document: { querySelectorAll: () => [{ sheet }] } });
  looksAgain(page as unknown as Window & typeof globalThis);
  for (const after_ms of [60, 60, 400]) {
    page.dispatchEvent(new Event("resize"));
    vi.advanceTimersByTime(after_ms);
  }
  expect(put).toHaveLength(1);
  expect(rules).toEqual(["header {}"]);
  vi.useRealTimers();
});
