import type { Report } from "../api/client";

/** Instrument names as they are said. */
export const INSTRUMENTS: Record<string, string> = {
  none: "no instrument",
  flute: "flute",
  oboe: "oboe",
  clarinet: "clarinet",
  alto_sax: "alto saxophone",
  tenor_sax: "tenor saxophone",
  trumpet: "trumpet",
  cornet: "cornet",
  horn: "horn",
  trombone: "trombone",
  euphonium: "euphonium",
  baritone: "baritone",
  tuba: "tuba",
};

export const instrumentWords = (name: string) => INSTRUMENTS[name] ?? name;

const IN_TIME_BEATS = 0.1; // nearer to the beat nobody minds

/** How a tapping foot keeps the beat; nothing where none taps, or it cannot be told. */
export function footWords({ posture, beats }: Pick<Report, "posture" | "beats">): string {
  const { foot_late_s: late, foot_on_beats: on } = posture;
  if (!late || !on || !beats.tempo_bpm) return "";
  const inTime = Math.max(late.uncertainty, (IN_TIME_BEATS * 60) / beats.tempo_bpm);
  const side = late.value > 0 ? "after" : "before";
  const where = Math.abs(late.value) <= inTime ? "with the beat" : `${Math.abs(late.value).toFixed(2)} s ${side} the beat`;
  const times = Math.round(on.value * on.n);
  return `${where}${times < on.n ? `, on ${times} of ${on.n}` : ""}`;
}

type Scale = { trunk_px: number | null; mm_per_px: number | null } | null;

/** An amount in percent of trunk, with millimetres beside where the printed card gave the clip a scale. */
export function amountWords(percent: number, scale: Scale): string {
  const said = `${percent.toFixed(1)} %`;
  return scale?.mm_per_px && scale.trunk_px ? `${said} · ${((percent / 100) * scale.trunk_px * scale.mm_per_px).toFixed(0)} mm` : said;
}

export const firstName = (name: string) => name.split(" ")[0] ?? name;

export const dayWords = (day: string) => new Date(`${day}T00:00:00`).toLocaleDateString("en-GB", { day: "numeric", month: "long" });

const LONGEST_ON_CHAIR = 11;

/** What stands on the chairs: first names, with as much of the surname as tells two of the same apart. */
export function chairNames(names: string[]): string[] {
  return names.map((name) => {
    const [first = name, last = ""] = [firstName(name), name.split(" ").slice(1).join(" ")];
    const alike = names.filter((other) => other !== name && firstName(other) === first).map((other) => other.slice(first.length + 1));
    const shown = alike.length ? `${first} ${last.slice(0, 1 + sharedLength(last, alike))}` : first;
    return shown.length > LONGEST_ON_CHAIR && !alike.length ? `${shown.slice(0, LONGEST_ON_CHAIR - 1)}…` : shown;
  });
}

/** How many letters a name begins with that another has as well. */
const sharedLength = (name: string, others: string[]) =>
  Math.max(0, ...others.map((other) => [...name].findIndex((letter, i) => letter !== other[i])).map((n) => (n < 0 ? name.length : n)));

/** A moment's day, short: "14 May". */
export const shortDay = (moment: string) => new Date(moment).toLocaleDateString("en-GB", { day: "numeric", month: "short" });

/** A moment with its time: "14 May, 10:20". */
export const momentWords = (moment: string) =>
  new Date(moment).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });
