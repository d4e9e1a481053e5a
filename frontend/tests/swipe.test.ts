import { describe, expect, it } from "vitest";

import { swiped } from "../src/take/useSwipe";

describe("a finger that goes across", () => {
  it("goes on to what stands to the right when it goes to the left, and back again", () => {
    expect(swiped(-120, 10)).toBe(1);
    expect(swiped(120, -10)).toBe(-1);
  });
  it("is a tap while it goes no further than a finger slips", () => expect(swiped(-30, 4)).toBe(0));
  it("scrolls the page when it goes up or down as much as across", () => {
    expect(swiped(-80, 70)).toBe(0);
    expect(swiped(0, 300)).toBe(0);
  });
});
