import { expect, it } from "vitest";

import { bracket, stroke } from "../src/breathscore/pencil";
import { valueWords } from "../src/shared/valueWords";
import { amountWords, dayWords, firstName, footWords, instrumentWords, chairNames } from "../src/shared/words";

const points = (path: string) =>
  path
    .slice(1)
    .split(" L")
    .map((pair) => pair.split(",").map(Number) as [number, number]);

it("a pencil line goes from end to end, never far off, and looks the same each time", () => {
  const drawn = points(stroke(100, 300, 40));
  expect(drawn[0]?.[0]).toBe(100);
  expect(drawn.at(-1)?.[0]).toBe(300);
  expect(drawn.every(([, y]) => Math.abs(y - 40) <= 1.1)).toBe(true);
  expect(new Set(drawn.map(([, y]) => y)).size).toBeGreaterThan(3);
  expect(stroke(100, 300, 40)).toBe(stroke(100, 300, 40));
});

it("a short line still has points to bend at", () => expect(points(stroke(10, 12, 5)).length).toBeGreaterThanOrEqual(4));

it("a bracket drops at both ends", () => {
  const drawn = points(bracket(10, 90, 30));
  expect([drawn[0], drawn.at(-1)]).toEqual([
    [10, 37],
    [90, 37],
  ]);
});

it("names and days are said as people say them", () => {
  expect(instrumentWords("alto_sax")).toBe("alto saxophone");
  expect(instrumentWords("kazoo")).toBe("kazoo");
  expect(firstName("Ilka Voss")).toBe("Ilka");
  expect(dayWords("2026-03-09")).toBe("9 March");
});

it("an amount has millimetres only where a card gave the scale", () => {
  expect(amountWords(2.44, { trunk_px: 200, mm_per_px: 2 })).toBe("2.4 % · 10 mm");
  expect(amountWords(2.44, { trunk_px: 200, mm_per_px: null })).toBe("2.4 %");
  expect(amountWords(-0.5, null)).toBe("-0.5 %");
});

it("chairs hold first names, and of two alike as much of the surname as tells them apart", () => {
  expect(chairNames(["Ada Quillane", "Bo Vantreen"])).toEqual(["Ada", "Bo"]);
  expect(chairNames(["Ada Quillane", "Ada Quistern", "Ada Brand"])).toEqual(["Ada Quil", "Ada Quis", "Ada B"]);
  expect(chairNames(["Bartholomewsky Vale"])).toEqual(["Bartholome…"]);
});

it("a number is shown in the unit a teacher says: shares in percent, degrees as they are", () => {
  expect(valueWords({ criterion: "feet_flat", unit: "of the time", value: 0.75 })).toBe("75 % of the time");
  expect(valueWords({ criterion: "abdomen_leads", unit: "of the breath", value: 0.62 })).toBe("62 % belly");
  expect(valueWords({ criterion: "wrist_left", unit: "deg", value: -0.01 })).toBe("0.0° bent");
  expect(valueWords({ criterion: "axis_level", unit: "deg", value: 24.2 })).toBe("24.2° below level");
  expect(valueWords({ criterion: "axis_level", unit: "deg", value: -18 })).toBe("18.0° above level");
  expect(valueWords({ criterion: "shoulder_tilt", unit: "deg", value: -6 })).toBe("6.0° right higher");
  expect(valueWords({ criterion: "wrist_left", unit: "deg", value: null })).toBe("");
});

it("a tapping foot is before, with or after the beat, and on so many of the beats; nothing is said where none taps", () => {
  const told = (value: number, uncertainty: number, n: number) => ({ value, uncertainty, n, by_segment: {} });
  const foot = (late: ReturnType<typeof told> | null, on: ReturnType<typeof told> | null, tempo_bpm: number | null = 72) =>
    footWords({ posture: { foot_late_s: late, foot_on_beats: on }, beats: { tempo_bpm } } as unknown as Parameters<typeof footWords>[0]);
  expect(foot(told(0.12, 0.04, 12), told(1, 0.1, 12))).toBe("0.12 s after the beat");
  expect(foot(told(-0.09, 0.04, 9), told(0.75, 0.2, 12))).toBe("0.09 s before the beat, on 9 of 12");
  expect(foot(told(0.07, 0.04, 12), told(1, 0.1, 12))).toBe("with the beat");
  expect(foot(told(0.07, 0.04, 12), told(1, 0.1, 12), 120)).toBe("0.07 s after the beat");
  expect(foot(told(0.12, 0.13, 12), told(1, 0.1, 12))).toBe("with the beat");
  expect(foot(null, null)).toBe("");
  expect(foot(told(0.12, 0.04, 12), told(1, 0.1, 12), null)).toBe("");
});
