import { describe, expect, it } from "vitest";

import { cropOf } from "../src/take/crop";
import { reportOf } from "./report";

const SHAPE = 1.5;
const player = (hip: [number, number], forward: [number, number] = [1, 0], up: [number, number] = [0, -1]) => ({
  player: { from_s: 0, box_px: [0, 0, 1, 1], others: 0, tilt_deg: null, hip_px: hip, up, forward },
  scale: { trunk_px: 200, mm_per_px: null, source: "key points" as const },
});
const clip = (width_px: number, height_px: number) => ({ ...reportOf([]).clip, width_px, height_px });

describe("the part of the picture that is shown", () => {
  it.each([
    ["in the middle", [960, 700]],
    ["at the left edge", [10, 1000]],
    ["at the right edge", [1910, 200]],
  ] as const)("never leaves the picture and has its shape: player %s", (_, hip) => {
    const found = cropOf(reportOf([], { clip: clip(1920, 1080), ...player([...hip]) }), SHAPE);
    expect(found.width / found.height).toBeCloseTo(SHAPE);
    expect(found.left).toBeGreaterThanOrEqual(0);
    expect(found.top).toBeGreaterThanOrEqual(0);
    expect(found.left + found.width).toBeLessThanOrEqual(1920 + 1e-6);
    expect(found.top + found.height).toBeLessThanOrEqual(1080 + 1e-6);
  });

  it("holds head and hips, and more of what is in front than behind", () => {
    const found = cropOf(reportOf([], { clip: clip(1920, 1080), ...player([960, 700]) }), SHAPE);
    expect(found.top).toBeLessThan(700 - 1.8 * 200);
    expect(found.top + found.height).toBeGreaterThan(700);
    expect(960 - found.left).toBeLessThan(found.width / 2);
  });

  it("shows the whole height of one who lies, and the middle where nobody is", () => {
    const lying = cropOf(reportOf([], { clip: clip(1280, 720), ...player([600, 500], [0, -1], [1, 0]) }), SHAPE);
    expect(lying.height).toBeCloseTo(720);
    const nobody = cropOf(reportOf([], { clip: clip(720, 1280), player: null, scale: null }), SHAPE);
    expect(nobody.width).toBeCloseTo(720);
    expect(nobody.top).toBeCloseTo((1280 - 480) / 2);
  });
});
