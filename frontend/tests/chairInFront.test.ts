import { describe, expect, it } from "vitest";

import { ChairInFront } from "../src/shared/chairInFront";

const was = (seat_id: number, number: number) => ({ seat_id, number });

describe("the chair in front", () => {
  it("is said once, and not where it is the one already", () => {
    const chair = new ChairInFront(was(3, 7));
    expect(chair.begins(3)).toBe(false);
    expect(chair.begins(4)).toBe(true);
    expect(chair.begins(4)).toBe(false);
  });

  it("follows one that was chosen elsewhere afterwards, once", () => {
    const chair = new ChairInFront(null);
    expect(chair.hears(was(5, 1))).toBe(5);
    expect(chair.hears(was(5, 1))).toBeNull();
    expect(chair.begins(5)).toBe(false);
  });

  it("is not taken back by what was loaded before its own last word, whichever page of the browser said it", () => {
    const chair = new ChairInFront(was(3, 7));
    chair.begins(1); // Today comes with the next chair
    chair.begins(3); // another is pressed, and Film opens for it
    expect(chair.hears(was(1, 8))).toBeNull(); // as long as it is being said
    chair.said(8);
    chair.said(9);
    expect(chair.hears(was(1, 8))).toBeNull(); // an answer that was on its way meanwhile
    expect(chair.hears(was(3, 9))).toBeNull();
    expect(chair.hears(was(6, 10))).toBe(6);
  });

  it("keeps one that was chosen elsewhere for when it can be followed", () => {
    const chair = new ChairInFront(was(3, 7));
    expect(chair.elsewhere(was(5, 8))).toBe(5); // a clip is being filmed
    expect(chair.elsewhere(was(3, 9))).toBeNull(); // and it was taken back
    expect(chair.elsewhere(was(6, 10))).toBe(6);
    expect(chair.hears(was(6, 10))).toBe(6);
    expect(chair.elsewhere(was(6, 10))).toBeNull();
  });

  it("stays where it could not be said, and still follows the next", () => {
    const chair = new ChairInFront(was(3, 7));
    chair.begins(4);
    chair.said(null);
    expect(chair.hears(was(3, 7))).toBeNull();
    expect(chair.hears(was(5, 8))).toBe(5);
  });
});
