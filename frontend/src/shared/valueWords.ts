import type { Verdict } from "../api/client";

const SHARES = new Set(["abdomen_leads", "even_intake", "even_exhale", "both_sides", "feet_flat"]);
const UNITS: Record<string, string> = {
  abdomen_leads: "% belly",
  even_intake: "% off even",
  even_exhale: "% off even",
  both_sides: "% apart",
  feet_flat: "% of the time",
};
const SHORT: Record<string, string> = { deg: "°" };

type Judged = Pick<Verdict, "criterion" | "unit">;

/** A verdict's number as it is shown: shares in percent, no minus before nothing. */
export function digits({ criterion }: Judged, value: number): string {
  const said = SHARES.has(criterion) ? (100 * value).toFixed(0) : value.toFixed(1);
  return said.replace(/^-(0(\.0)?)$/, "$1");
}

export const unitWords = ({ criterion, unit }: Judged) => UNITS[criterion] ?? SHORT[unit] ?? unit;

/** A unit as it stands behind its number: degrees close to it, others apart. */
export const withUnit = (unit: string) => (unit === "deg" ? "°" : ` ${unit}`);

/** The number with its unit; nothing where there is none. */
export const valueWords = (judged: Judged & { value: number | null }) =>
  judged.value === null ? "" : `${digits(judged, judged.value)} ${unitWords(judged)}`;

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
