import type { Card, Check } from "../api/client";

export type Part = "count-in" | "in" | "pause" | "out" | "empty" | "done";
/** Where in a card a moment lies. number: what is counted aloud, from 1; of: how many beats this part has, null where it lasts as long as it lasts;
 * next: what comes after it; until: the beat at which another moment begins, which parts of half a beat move off the whole beats. */
export type Moment = {
  part: Part;
  number: number;
  of: number | null;
  breath: number;
  next: { part: Part; beats: number | null } | null;
  until: number;
};

type Stretch = { part: Part; beats: number | null; breath: number };
const OPEN_BEATS = 64; // an exhale that lasts as long as it lasts ends by hand
export const TAIL_BEATS = 1; // filmed after the last exhale, so that its end is seen

/** A card as its parts in order, from the count-in on; parts of no length are none. */
export function partsOf(card: Card): Stretch[] {
  const breaths = Array.from({ length: card.cycles }, (_, breath) => [
    { part: "in" as const, beats: card.inhale_beats, breath },
    { part: "pause" as const, beats: card.pause_beats, breath },
    { part: "out" as const, beats: card.exhale_beats, breath },
    { part: "empty" as const, beats: card.empty_beats, breath },
  ]).flat();
  return [{ part: "count-in" as const, beats: card.countin_beats, breath: -1 }, ...breaths].filter(({ beats }) => beats !== 0);
}

const lengthOf = ({ beats }: Stretch) => beats ?? OPEN_BEATS;

/** Beats of the whole card, the count-in and the tail included; null where an exhale is open. */
export function beatsOf(card: Card): number | null {
  const parts = partsOf(card);
  return parts.some(({ beats }) => beats === null) ? null : parts.reduce((sum, part) => sum + lengthOf(part), TAIL_BEATS);
}

/** A raise of a hold as it is drawn: up from the lap, along at the mouth, and down where it rests; places and heights in px. */
export const raised = (from: number, up: number, to: number, rest: number, low: number, high: number) =>
  `M${from},${low} L${up},${high} H${to}${rest > to ? ` L${rest},${low}` : ""}`;

/** Where a beat lies, counted from the start of the count-in. */
export function momentAt(card: Card, beat: number): Moment {
  const parts = partsOf(card);
  let from = 0;
  for (const [i, part] of parts.entries()) {
    const to = from + lengthOf(part);
    if (beat < to) {
      const after = parts[i + 1];
      const number = Math.max(Math.floor(beat - from), 0) + 1;
      return {
        part: part.part,
        number,
        of: part.beats,
        breath: part.breath,
        next: after ? { part: after.part, beats: after.beats } : null,
        until: Math.min(from + number, to),
      };
    }
    from = to;
  }
  return { part: "done", number: 0, of: 0, breath: card.cycles - 1, next: null, until: Infinity };
}

/** Whether nothing that is shown has changed. */
export const sameMoment = (one: Moment, other: Moment) =>
  one.part === other.part && one.number === other.number && one.breath === other.breath;

export const PART_WORDS: Record<Part, string> = {
  "count-in": "ready",
  in: "breathe in",
  pause: "wait",
  out: "breathe out",
  empty: "stay empty",
  done: "done",
};

/** The same of a hold: the instrument comes up, stays there and rests. */
const HOLD_WORDS: Record<Part, string> = { ...PART_WORDS, in: "bring it up", out: "keep it there", empty: "rest it" };
const THEN: Record<Part, string> = { "count-in": "ready", in: "in", pause: "wait", out: "out", empty: "empty", done: "done" };
const HOLD_THEN: Record<Part, string> = { ...THEN, in: "up", out: "keep it", empty: "down" };

/** What is said of a part of the count: as it is now, and as what comes then. */
export const partWords = (part: Part, kind: Check["kind"]) => (kind === "hold" ? HOLD_WORDS : PART_WORDS)[part];
export const thenWords = (part: Part, kind: Check["kind"]) => (kind === "hold" ? HOLD_THEN : THEN)[part];

type Contrast = Check["contrast"];
/** What a card's two halves are called: the other way, then as it should be. */
export const SIDES: Record<Exclude<Contrast, "none">, readonly [string, string]> = {
  high_low: ["high", "low"],
  slumped_tall: ["slumped", "tall"],
  pinched_open: ["pinched", "open"],
  slack_slow: ["slack", "slow"],
};

/** Which side a breath is on, where a card asks for both: the first half on purpose the other way. */
export function sideAt(breath: number, { cycles }: Card, contrast: Contrast): string {
  if (contrast === "none") return "";
  const [first, second] = SIDES[contrast];
  return Math.max(breath, 0) < cycles / 2 ? `${first} on purpose` : `now ${second}`;
}

/** What is counted aloud at a moment: the number, or the card's own words of the count-in; one word more than it has beats falls on the first inhale. */
export function saidAt({ part, number, breath }: Moment, words: string[], countin: number): string {
  if (part === "done") return "";
  const first = part === "in" && breath === 0 && number === 1;
  let word = part === "count-in" ? words[number - 1] : undefined;
  if (first) word = words[Math.ceil(countin)];
  return word ?? String(number);
}
