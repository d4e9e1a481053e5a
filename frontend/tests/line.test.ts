import { expect, it } from "vitest";

import type { Report } from "../src/api/client";
import { showsLine } from "../src/take/SetLine";

const report = (hold: object | null, verdicts: object[] = []) => ({ hold, verdicts }) as Report;

it("offers to set the instrument's line where it lies in the picture, found or not", () => {
  expect(showsLine(report({ instrument_axis_deg: { value: 12 } }))).toBe(true);
  expect(showsLine(report({ instrument_axis_deg: null }, [{ criterion: "axis_level", reason: "not_found" }]))).toBe(true);
  expect(showsLine(report({ instrument_axis_deg: null }, [{ criterion: "axis_to_trunk", reason: null }]))).toBe(true);
});

it("offers nothing where taps could tell nothing: seen from elsewhere, wound, or not held", () => {
  expect(showsLine(report({ instrument_axis_deg: null }, [{ criterion: "axis_level", reason: "view_unserved" }]))).toBe(false);
  expect(showsLine(report({ instrument_axis_deg: null }, [{ criterion: "head_travel", reason: null }]))).toBe(false);
  expect(showsLine(report(null))).toBe(false);
});
