import type { Report } from "../api/client";
import { middleOf } from "./BySegment";

type Row = { name: string; value: string; at_s: number | null };

type Measured = { value: number; uncertainty: number } | null | undefined;

/** What was measured and is judged by nobody: of the breath that is looked at, then of the whole clip; at_s: the moment of the clip to look at for it. */
export function toldOf(report: Report, chosen: number | null): Row[] {
  const which = chosen ?? 0;
  const breath = report.breaths[which];
  const sure = breath?.uncertainty?.phase_angle_deg;
  const { posture, hold, segments } = report;
  const playing = middleOf(segments, "playing") ?? report.breaths[0]?.exhale_start_s ?? null;
  const last = report.breaths.at(-1)?.exhale_end_s ?? playing;
  return [
    row(`phase angle of chest and belly, breath ${which + 1}`, breath?.phase_angle_deg, sure, "°", breath?.inhale_start_s),
    breath?.exhale_shape ? { name: `exhale, breath ${which + 1}`, value: breath.exhale_shape, at_s: breath.exhale_start_s } : null,
    of("ear over shoulders", posture.shoulder_height_pct, " % of trunk", playing),
    of("sinks forward a minute", posture.sag_deg_per_min, "°", last, 1),
    of("left fingers bent", hold?.finger_curl_deg?.left, "°", playing),
    of("right fingers bent", hold?.finger_curl_deg?.right, "°", playing),
  ].filter((one) => one !== null);
}

type At = number | null | undefined;

const of = (name: string, measured: Measured, unit: string, at_s: At, places = 0) =>
  row(name, measured?.value, measured?.uncertainty, unit, at_s, places);

function row(name: string, value: At, sure: At, unit: string, at_s: At, places = 0): Row | null {
  if (value == null) return null;
  const said = value.toFixed(places).replace(/^-(0(\.0)?)$/, "$1"); // no minus before nothing
  return { name, value: `${said}${unit}${sure == null ? "" : ` ± ${sure.toFixed(places)}`}`, at_s: at_s ?? null };
}
