import type { Card, LadderCard } from "../api/client";
import { POSITIONS } from "../shared/asked";

/** A card while it is being changed. check: as it was; what this page does not show of it stays. */
export type Draft = {
  rung: number;
  title: string;
  /** The first set, and those after it. */
  card: Card;
  sets: Card[];
  contrast: LadderCard["check"]["contrast"];
  asks: LadderCard["check"]["asks"];
  kind: Kind;
  words: string[];
  check: LadderCard["check"];
};
/** A check of where somebody stands, the same as practice, or bringing the instrument up. */
export const KINDS = ["counted_breathing", "drill", "hold"] as const;
export type Kind = (typeof KINDS)[number];
export type Handle = "in" | "wait" | "out" | "empty";

const LEAST_BEATS = 0.25;
const MOST_BEATS = 32;
const BPM: readonly [number, number] = [30, 200];

export const draftOf = ({ rung, title, check }: LadderCard): Draft | null =>
  check.card && {
    rung,
    title,
    card: check.card,
    sets: check.sets,
    contrast: check.contrast,
    asks: check.asks,
    kind: KINDS.find((one) => one === check.kind) ?? "counted_breathing",
    words: check.countin_words,
    check: { ...check, shown: "" }, // the demonstration is kept by itself
  };

/** The counts of all sets. */
export const cardsOf = ({ card, sets }: Draft) => [card, ...sets];

const NAMES: Record<Kind, string> = { counted_breathing: "breath", drill: "drill", hold: "hold" };

/** The rung where cards of a kind stand, and its name: its own at the end of the ladder where there is none. */
export function rungOf(ladder: LadderCard[], kind: Draft["kind"]): { rung: number; title: string } {
  const own = ladder.find(({ check }) => check.kind === kind);
  const last = Math.max(0, ...ladder.map(({ rung }) => rung));
  return own ? { rung: own.rung, title: own.title } : { rung: last + 1, title: `the ${NAMES[kind]}` };
}

/** The draft as a hold in counts, or as a breath: what only the other asks goes. */
export function asKind(draft: Draft, kind: Draft["kind"]): Draft {
  if (kind !== "hold" && draft.kind !== "hold") return { ...draft, kind };
  if (kind !== "hold")
    return {
      ...draft,
      kind,
      asks: "where",
      card: { ...draft.card, empty_beats: 0 },
      sets: draft.sets.map((one) => ({ ...one, empty_beats: 0 })),
    };
  const raise = (one: Card) => ({
    ...one,
    pause_beats: 0,
    exhale_beats: one.exhale_beats ?? KEPT_BEATS,
    empty_beats: one.empty_beats || REST_BEATS,
  });
  const check = { ...draft.check, with_instrument: true, full_breath: false, taught: {} };
  return { ...draft, kind, check, asks: "easier", contrast: "none", card: raise(draft.card), sets: draft.sets.map(raise) };
}
const KEPT_BEATS = 6;
const REST_BEATS = 2;

/** The draft with another count for one of its sets. */
export const withCard = (draft: Draft, at: number, card: Card): Draft =>
  at === 0 ? { ...draft, card } : { ...draft, sets: draft.sets.map((one, i) => (i === at - 1 ? card : one)) };

const MOST_SETS = 8;

/** One more set, with a beat less to breathe in while there is one. */
export function withOneMore(draft: Draft): Draft {
  const last = draft.sets.at(-1) ?? draft.card;
  if (draft.sets.length + 1 >= MOST_SETS) return draft;
  return { ...draft, sets: [...draft.sets, { ...last, inhale_beats: last.inhale_beats > 1 ? last.inhale_beats - 1 : last.inhale_beats }] };
}

/** The card in its short notation, as it is sent. */
export function textOf({ inhale_beats, pause_beats, exhale_beats, empty_beats, tempo_bpm, cycles, countin_beats }: Card): string {
  const empty = empty_beats ? `-${empty_beats}` : "";
  const countin = countin_beats === 4 ? "" : `+${countin_beats}`;
  return `${inhale_beats}-${pause_beats}-${exhale_beats ?? "*"}${empty}@${tempo_bpm}x${cycles}${countin}`;
}

/** What the count alone does not tell of a card, and how many are on it. */
export function besidesOf(check: LadderCard["check"], students: number): string[] {
  return [
    check.with_instrument && check.kind !== "hold" ? "instrument" : "",
    check.position === "seated" ? "" : POSITIONS[check.position],
    check.full_breath ? "full breath" : "",
    students ? `${students} student${students === 1 ? "" : "s"}` : "",
  ].filter(Boolean);
}

/** Where the parts of one breath begin and end, beats; an open exhale is drawn so long. */
export const OPEN_BEATS = 12;
export function marksOf(card: Card) {
  const full = card.inhale_beats;
  const leave = full + card.pause_beats;
  const out = leave + (card.exhale_beats ?? OPEN_BEATS);
  return { full, leave, out, rest: out + card.empty_beats };
}

/** The card with one of its corners moved to a beat; every part stays at least as long as it must be. */
export function moved(card: Card, handle: Handle, to: number): Card {
  const { full, leave, out } = marksOf(card);
  const between = (length: number, least: number) => Math.min(Math.max(length, least), MOST_BEATS);
  if (handle === "in") return { ...card, inhale_beats: between(to, LEAST_BEATS) };
  if (handle === "wait") return { ...card, pause_beats: between(to - full, 0) };
  if (handle === "out") return { ...card, exhale_beats: between(to - leave, LEAST_BEATS) };
  return { ...card, empty_beats: between(to - out, 0) };
}

/** The nearest whole beat, or quarter. */
export const snapped = (beat: number, fine: boolean) => (fine ? Math.round(beat * 4) / 4 : Math.max(Math.round(beat), 0));

export const tempoOf = (bpm: number) => Math.min(Math.max(Math.round(bpm), BPM[0]), BPM[1]);

export const breathBeats = (card: Card) => marksOf(card).rest;
export const secondsOf = (beats: number, card: Card) => (beats * 60) / card.tempo_bpm;

/** Seconds of count-in, breaths and the whole; the exhale without an end is counted as it is drawn. */
export function sumOf(card: Card) {
  const countin = secondsOf(card.countin_beats, card);
  const breaths = secondsOf(card.cycles * breathBeats(card), card);
  return { countin, breaths, whole: countin + breaths };
}

/** A stretch of the whole run on the clock, seconds. set: which of the sets it belongs to; of a rest the one after it. */
export type Stretch = { part: "countin" | "breath" | "rest"; set: number; from_s: number; to_s: number };

/** All sets in a row, each with its count-in; the rest is put in where more breaths in a row would be too many. */
export function runOf(cards: Card[], most: number, rest_s: number): Stretch[] {
  const run: Stretch[] = [];
  let [at_s, in_a_row] = [0, 0];
  const add = (part: Stretch["part"], set: number, lasts_s: number) => {
    run.push({ part, set, from_s: at_s, to_s: at_s + lasts_s });
    at_s += lasts_s;
  };
  cards.forEach((card, set) => {
    if (in_a_row > 0 && in_a_row + card.cycles > most) {
      add("rest", set, rest_s);
      in_a_row = 0;
    }
    add("countin", set, sumOf(card).countin);
    for (let i = 0; i < card.cycles; i++) add("breath", set, secondsOf(breathBeats(card), card));
    in_a_row += card.cycles;
  });
  return run;
}

/** Minutes that so many students take. run_s: of the whole run; change_s: from one chair to the next. */
export const minutesFor = (students: number, run_s: number, change_s: number) => Math.ceil((students * (run_s + change_s)) / 60);
