import { describe, expect, it } from "vitest";

import type { Report } from "../src/api/client";
import { toldOf } from "../src/take/unjudged";

const breath = (phase: number | null, shape: string | null) => ({
  phase_angle_deg: phase,
  exhale_shape: shape,
  uncertainty: { phase_angle_deg: phase === null ? null : 12 },
});
const report = (more: object) =>
  ({ breaths: [breath(24.4, "even"), breath(null, null)], posture: {}, hold: null, ...more }) as unknown as Report;

describe("what is measured and not judged", () => {
  it("is of the breath that is looked at, with how sure it is", () => {
    expect(toldOf(report({}), 0)).toEqual([
      { name: "phase angle of chest and belly, breath 1", value: "24° ± 12" },
      { name: "exhale, breath 1", value: "even" },
    ]);
    expect(toldOf(report({}), null)).toEqual(toldOf(report({}), 0));
    expect(toldOf(report({}), 1)).toEqual([]);
  });
  it("is of the whole clip as well", () => {
    const seen = (value: number, uncertainty: number) => ({ value, uncertainty, n: 8, by_segment: {} });
    const found = toldOf(
      report({ posture: { shoulder_height_pct: seen(47.5, 10.7) }, hold: { finger_curl_deg: { left: null, right: seen(44, 25) } } }),
      1,
    );
    expect(found).toEqual([
      { name: "ear over shoulders", value: "48 % of trunk ± 11" },
      { name: "right fingers bent", value: "44° ± 25" },
    ]);
    const sinks = (value: number) => toldOf(report({ posture: { sag_deg_per_min: seen(value, 0.84) } }), 1)[0]?.value;
    expect([sinks(1.46), sinks(-0.04)]).toEqual(["1.5° ± 0.8", "0.0° ± 0.8"]);
  });
  it("is nothing where nothing was measured", () => expect(toldOf({ ...report({}), breaths: [] } as Report, null)).toEqual([]));
});
