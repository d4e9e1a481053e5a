import { expect, test } from "vitest";

import type { Report } from "../src/api/client";
import { axisShown, pencilled } from "../src/take/axis";

const report = (criterion: string, state: string, more: object = {}) =>
  ({
    hold: {
      axis_px: [100, 100, 100 + 80 * Math.cos(Math.PI / 6), 140],
      instrument_axis_deg: { value: 30 },
      axis_to_trunk_deg: { value: 60 },
      ...more,
    },
    player: { up: [0, -1] },
    verdicts: [{ criterion, state }],
  }) as unknown as Report;

test("an angle to level is drawn against level, one to the trunk against the trunk", () => {
  const level = axisShown(report("axis_level", "steady"))!;
  expect([level.degrees, level.marked, level.against.map(Math.round)]).toEqual([30, null, [180, 100]]);
  const trunk = axisShown(report("axis_to_trunk", "work"))!;
  expect([trunk.degrees, trunk.marked, trunk.against.map(Math.round)]).toEqual([60, "work", [100, 180]]);
  expect(axisShown(report("axis_level", "watch"))!.marked).toBe("watch");
});

test("level is the room's where the phone stood tilted", () => {
  const tilted = { ...report("axis_level", "steady"), player: { up: [0, -1], tilt_deg: 30 } } as unknown as Report;
  expect(axisShown(tilted)!.against.map(Math.round)).toEqual([169, 140]);
});

test("without a line nothing is drawn, and what is not judged is not marked", () => {
  expect(axisShown(report("axis_level", "steady", { axis_px: null }))).toBeNull();
  expect(axisShown(report("feet_flat", "work"))!.marked).toBeNull();
});

test("the pencil goes the short way between both lines, near their far ends", () => {
  const { path, middle } = pencilled(axisShown(report("axis_level", "work"))!);
  const degrees = (Math.atan2(middle[1] - 100, middle[0] - 100) * 180) / Math.PI;
  expect(degrees).toBeCloseTo(15, 0);
  expect(Math.hypot(middle[0] - 100, middle[1] - 100) / 80).toBeCloseTo(0.86, 1);
  expect(path.split(" L")).toHaveLength(9);
});
