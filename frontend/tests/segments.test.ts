import { describe, expect, it } from "vitest";

import { bySegment } from "../src/take/BySegment";

const SEGMENTS = [
  { kind: "instrument_down" as const, from_s: 0, to_s: 3 },
  { kind: "raising" as const, from_s: 3, to_s: 4 },
  { kind: "inhale" as const, from_s: 5, to_s: 8 },
  { kind: "exhale" as const, from_s: 8, to_s: 12 },
  { kind: "inhale" as const, from_s: 12, to_s: 16 },
];

describe("a row of posture by what the clip shows", () => {
  it("goes through the clip in its order, each part with the middle of its longest stretch", () => {
    const found = bySegment({ by_segment: { inhale: 4.2, instrument_down: -12, raising: 8 } }, SEGMENTS);
    expect(found.map(({ words, value, at_s }) => [words, value, at_s])).toEqual([
      ["at rest", -12, 1.5],
      ["raising", 8, 3.5],
      ["breathing in", 4.2, 14],
    ]);
  });
  it("leaves out what the clip does not show, and is nothing where nothing was told apart", () => {
    expect(bySegment({ by_segment: { pause: 1, exhale: 2 } }, SEGMENTS).map(({ kind }) => kind)).toEqual(["exhale"]);
    expect(bySegment({}, SEGMENTS)).toEqual([]);
  });
});
