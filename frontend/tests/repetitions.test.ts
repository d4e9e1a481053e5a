import { expect, test } from "vitest";

import { repeatWords } from "../src/take/repetitions";

test("correct ones of a card, and what they ask for next", () => {
  expect(repeatWords({ correct: 1, tries: 1, holds_after: 4 })).toBe("");
  expect(repeatWords({ correct: 1, tries: 3, holds_after: null })).toBe("this card correct 1 of 3 times");
  expect(repeatWords({ correct: 3, tries: 5, holds_after: 4 })).toMatch("times: here it usually holds after 4, so more of the same");
  expect(repeatWords({ correct: 4, tries: 5, holds_after: 4 })).toMatch("times: here it usually holds after 4, so on to the next card");
});
