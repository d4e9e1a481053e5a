import type { Report } from "../api/client";

type Row = { name: string; value: string };

type Measured = { value: number; uncertainty: number } | null | undefined;

/** What was measured and is judged by nobody: of the breath that is looked at, then of the whole clip. */
export function toldOf(report: Report, chosen: number | null): Row[] {
  const which = chosen ?? 0;
  const breath = report.breaths[which];
  const sure = breath?.uncertainty?.phase_angle_deg;
  const { posture, hold } = report;
  return [
    row(`phase angle of chest and belly, breath ${which + 1}`, breath?.phase_angle_deg, sure, "°"),
    breath?.exhale_shape ? { name: `exhale, breath ${which + 1}`, value: breath.exhale_shape } : null,
    of("ear over shoulders", posture.shoulder_height_pct, " % of trunk"),
    of("sinks forward a minute", posture.sag_deg_per_min, "°", 1),
    of("left fingers bent", hold?.finger_curl_deg?.left, "°"),
    of("right fingers bent", hold?.finger_curl_deg?.right, "°"),
  ].filter((one) => one !== null);
}

const of = (name: string, measured: Measured, unit: string, places = 0) => row(name, measured?.value, measured?.uncertainty, unit, places);

function row(name: string, value: number | null | undefined, sure: number | null | undefined, unit: string, places = 0): Row | null {
  if (value == null) return null;
  const said = value.toFixed(places).replace(/^-(0(\.0)?)$/, "$1"); // no minus before nothing
  return { name, value: `${said}${unit}${sure == null ? "" : ` ± ${sure.toFixed(places)}`}` };
}
