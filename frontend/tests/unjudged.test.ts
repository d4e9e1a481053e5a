import { describe, expect, it } from "vitest";

import type { Report } from "../src/api/client";
import { toldOf } from "../src/take/unjudged";

const breath = (phase: number | null, shape: string | null) => ({
  phase_angle_deg: phase,
  exhale_shape: shape,
  inhale_start_s: 3,
  exhale_start_s: 5.5,
  exhale_end_s: 11,
  uncertainty: { phase_angle_deg: phase === null ? null : 12 },
});
const report = (more: object) =>
  ({ breaths: [breath(24.4, "even"), breath(null, null)], posture: {}, hold: null, segments: [], ...more }) as unknown as Report;

describe("what is measured and not judged", () => {
  it("is of the breath that is looked at, with how sure it is", () => {
    expect(toldOf(report({}), 0)).toEqual([
      { name: "phase angle of chest and belly, breath 1", value: "24° ± 12", at_s: 3 },
      { name: "exhale, breath 1", value: "even", at_s: 5.5 },
    ]);
    expect(toldOf(report({}), null)).toEqual(toldOf(report({}), 0));
    expect(toldOf(report({}), 1)).toEqual([]);
  });
  it("is of the whole clip as well", () => {
    const seen = (value: number, uncertainty: number) => ({ value, uncertainty, n: 8, by_segment: {} });
    const found = toldOf(
      report({
        segments: [{ kind: "playing", from_s: 8, to_s: 20 }],
        posture: { shoulder_height_pct: seen(47.5, 10.7) },
        hold: { finger_curl_deg: { left: null, right: seen(44, 25) } },
      }),
      1,
    );
    expect(found).toEqual([
      { name: "ear over shoulders", value: "48 % of trunk ± 11", at_s: 14 },
      { name: "right fingers bent", value: "44° ± 25", at_s: 14 },
    ]);
    const sinks = (value: number) => toldOf(report({ posture: { sag_deg_per_min: seen(value, 0.84) } }), 1)[0];
    expect([sinks(1.46)?.value, sinks(-0.04)?.value, sinks(1)?.at_s]).toEqual(["1.5° ± 0.8", "0.0° ± 0.8", 11]);
  });
  it("is nothing where nothing was measured", () => expect(toldOf({ ...report({}), breaths: [] } as Report, null)).toEqual([]));
});
