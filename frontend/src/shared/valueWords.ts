import type { Verdict } from "../api/client";

const SHARES = new Set(["abdomen_leads", "even_intake", "even_exhale", "both_sides", "feet_flat"]);
const UNITS: Record<string, string> = {
  abdomen_leads: "% belly",
  even_intake: "% off even",
  even_exhale: "% off even",
  both_sides: "% apart",
  feet_flat: "% of the time",
};
const BENT = ["bent", "bent"] as const;
const OUT = ["out", "in"] as const;
/** Which way an angle goes, over nothing and under it: it is shown without its sign. */
const WAYS: Partial<Record<string, readonly [string, string]>> = {
  trunk_inclination: ["forward", "back"],
  keeps_tall: ["forward", "back"],
  shoulder_tilt: ["left higher", "right higher"],
  head_level: ["to the right", "to the left"],
  head_with_flute: ["to the right", "to the left"],
  axis_level: ["below level", "above level"],
  axis_to_trunk: ["from trunk", "from trunk"],
  arms_stay_up: ["lower", "higher"],
  elbow_left: OUT,
  elbow_right: OUT,
  wrist_left: BENT,
  wrist_right: BENT,
};

type Judged = Pick<Verdict, "criterion" | "unit">;

/** A verdict's number as it is shown: shares in percent, no minus before nothing. */
export function digits({ criterion }: Judged, value: number): string {
  const said = SHARES.has(criterion) ? (100 * value).toFixed(0) : value.toFixed(1);
  return said.replace(/^-(0(\.0)?)$/, "$1");
}

/** Whether its number is an angle, shown with the way it goes. */
export const isAngle = ({ criterion }: Pick<Judged, "criterion">) => WAYS[criterion] !== undefined;

/** What stands behind its number. */
export const unitOf = ({ criterion, unit }: Judged) => UNITS[criterion] ?? unit;

/** The number as it stands in bold, degrees close to it, and the words behind it. */
export function shown(judged: Judged, value: number): { number: string; words: string } {
  const way = WAYS[judged.criterion];
  if (way) return { number: `${digits(judged, Math.abs(value))}°`, words: way[value < 0 ? 1 : 0] };
  return { number: digits(judged, value), words: unitOf(judged) };
}

/** A unit as it stands behind its number: degrees close to it, others apart. */
export const withUnit = (unit: string) => (unit === "deg" ? "°" : ` ${unit}`);

/** The number with its unit; nothing where there is none. */
export function valueWords(judged: Judged & { value: number | null }): string {
  if (judged.value === null) return "";
  const { number, words } = shown(judged, judged.value);
  return `${number} ${words}`;
}

/** Where steady ends and where work begins, and how sure the number is. */
export function limitsWords(verdict: Verdict): string {
  const limits = verdict.threshold as Record<string, number>;
  const said = (key: string) => (limits[key] === undefined ? null : digits(verdict, limits[key]!));
  const sentence = (parts: [string, string | null][], between: string) =>
    parts
      .filter(([, value]) => value !== null)
      .map(([word, value]) => `${word} ${value}`)
      .join(between);
  const steady = sentence([["from", said("steady_low")], ["up to", said("steady_high")]], " "); // prettier-ignore
  const work = sentence([["below", said("work_low")], ["above", said("work_high")]], " or "); // prettier-ignore
  return `Steady ${steady};${work ? ` work on this ${work};` : ""} measured to ± ${digits(verdict, verdict.uncertainty ?? 0)}.`;
}
