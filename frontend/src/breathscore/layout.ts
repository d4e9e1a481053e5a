import { scaleLinear } from "d3-scale";

import type { Breath, Card, Check, Report } from "../api/client";

export type Lane = "shoulder" | "chest" | "abdomen";
export const LANES: readonly Lane[] = ["shoulder", "chest", "abdomen"];
export const LANE_WORDS: Record<Lane, string> = { shoulder: "shoulders", chest: "chest", abdomen: "abdomen" };

/** A check in a few words. */
export function checkWords({ card, kind, name, sets }: Check): string {
  if (!card) return "no card";
  const raises = ["hold", [card.inhale_beats, card.exhale_beats, card.empty_beats].filter(Boolean).join("-")].join(" "); // up, kept, down
  return `${kind === "hold" ? raises : name.split("@")[0]} at ${card.tempo_bpm}${sets.length ? `, ${sets.length + 1} sets` : ""}`;
}

/** The count that breaths are held against: none of a hold, whose count is of raises. */
export const breathCardOf = ({ card, kind }: Check) => (kind === "hold" ? null : card);

/** The counts of all sets that a check asks for. */
export const setsOf = ({ card, sets }: Check) => (card ? [card, ...sets] : []);

export type Wedge = { from: number; full: number; leave: number; to: number };
/** What is asked between two of its turns, in words over their middle, px. */
export type Phase = { x: number; words: string };
export type Beat = { x: number; bar: boolean; label: string };
/** How large a drawing is, px, and from when to when it shows the clip; narrow: names stand over the lanes, not beside them. */
export type Place = { width: number; height: number; from?: number; to?: number; narrow?: boolean };

export type Layout = {
  narrow: boolean;
  width: number;
  height: number;
  left: number;
  right: number;
  x: (t_s: number) => number;
  time: (x: number) => number;
  countMiddle: number;
  countHalf: number;
  top: number;
  bottom: number;
  footMiddle: number | null;
  strikes: number[];
  base: Record<Lane, number>;
  ceiling: Record<Lane, number>;
  perPct: number;
  seen: Record<Lane, boolean>;
  ticks: Record<Lane, number[]>;
  beats: Beat[];
  done: Wedge[];
  asked: Wedge[];
  phases: Phase[];
  washes: { from: number; to: number }[];
};

const LABELS_PX = 84;
const TICKS_PX = 52;
const NARROW_TICKS_PX = 36;
const FOOT_PX = 18; // under the lanes, where a foot strikes
const METRE = 4;
const PHASE_PX = 56; // less than this and its words run into the next
const TICK_GAP_PX = 26;
const LEAST_RANGE_PCT: Record<Lane, number> = { shoulder: 0.7, chest: 0.9, abdomen: 0.9 };

/** Where everything of a breath score stands. */
export function layoutOf(report: Report, card: Card | null, { width, height, from, to, narrow = false }: Place): Layout {
  const left = narrow ? 1 : LABELS_PX;
  const right = width - (narrow ? NARROW_TICKS_PX : TICKS_PX);
  const length = Math.max(report.clip.duration_s, 1);
  const shown = [from ?? 0, to ?? length] as const;
  const scale = scaleLinear().domain(shown).range([left, right]);
  const top = narrow ? 36 : 22;
  const countHalf = Math.max(10, Math.min(17, height * 0.06));
  const countMiddle = top + countHalf + 10;
  const lanesTop = countMiddle + countHalf + 6;
  const strikes = (report.player?.strikes_s ?? []).filter((t_s) => t_s >= shown[0] && t_s <= shown[1]);
  const bottom = height - 6 - (strikes.length ? FOOT_PX : 0);
  const { base, ceiling, perPct } = lanes(report, lanesTop, bottom, narrow);
  const done = report.breaths.flatMap(wedgeOf);
  const asked = askedOf(report, card);
  return {
    narrow,
    width,
    height,
    left,
    right,
    x: (t) => scale(t),
    time: (x) => Math.min(Math.max(scale.invert(x), shown[0]), shown[1]),
    countMiddle,
    countHalf,
    top,
    bottom,
    footMiddle: strikes.length ? height - FOOT_PX / 2 : null,
    strikes,
    base,
    ceiling,
    perPct,
    ticks: ticksOf(report, perPct),
    seen: { shoulder: report.trace.shoulder.length > 0, chest: report.trace.chest.length > 0, abdomen: report.trace.abdomen.length > 0 },
    beats: beatsOf(report, scale, shown, narrow ? asked : []),
    done,
    asked,
    phases: narrow ? phasesOf(asked, card, scale, shown) : [],
    washes: (asked.length ? asked : done).map(({ from, full }) => ({ from, to: full })),
  };
}

function wedgeOf(b: Breath): Wedge[] {
  const { inhale_start_s: from, inhale_end_s: full, exhale_start_s: leave, exhale_end_s: to } = b;
  return from == null || full == null || leave == null || to == null ? [] : [{ from, full, leave, to }];
}

function askedOf(report: Report, card: Card | null): Wedge[] {
  const { first_inhale_s: first, tempo_bpm: tempo } = report.beats;
  if (!card || first === null || tempo === null || card.exhale_beats === null) return [];
  const beat = 60 / tempo;
  const cycle = card.inhale_beats + card.pause_beats + card.exhale_beats + card.empty_beats;
  return Array.from({ length: card.cycles }, (_, i) => {
    const from = first + i * cycle * beat;
    const full = from + card.inhale_beats * beat;
    const leave = full + card.pause_beats * beat;
    return { from, full, leave, to: leave + (card.exhale_beats ?? 0) * beat };
  });
}

/** How long is asked in and out, where the middle of it is shown and its words have room. */
function phasesOf(asked: Wedge[], card: Card | null, x: (t: number) => number, [start, end]: readonly [number, number]): Phase[] {
  const said = asked.flatMap(({ from, full, leave, to }) => [
    { from, to: full, words: `in for ${card?.inhale_beats}` },
    { from: leave, to, words: `out for ${card?.exhale_beats}` },
  ]);
  return said
    .map((one) => ({ ...one, middle: (one.from + one.to) / 2 }))
    .filter(({ from, to, middle }) => middle > start && middle < end && x(to) - x(from) >= PHASE_PX)
    .map(({ middle, words }) => ({ x: x(middle), words }));
}

/** Range of a lane above and below its rest line, percent of trunk. */
export function rangeOf(values: number[], lane: Lane): [number, number] {
  const rest = restOf(values);
  const moved = values.map((v) => v - rest);
  return [Math.min(0, ...moved), Math.max(LEAST_RANGE_PCT[lane], ...moved)];
}

/** Level of rest: the lower tenth of a trace. */
export function restOf(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length * 0.1)] ?? 0;
}

function lanes(report: Report, top: number, bottom: number, narrow: boolean) {
  const gap = narrow ? 20 : 8; // names need their line where they stand over the lanes
  const ranges = LANES.map((lane) => [lane, rangeOf(report.trace[lane], lane)] as const);
  const total = ranges.reduce((sum, [, [low, high]]) => sum + high - low, 0);
  const perPct = (bottom - top - gap * LANES.length) / total;
  const base = { shoulder: 0, chest: 0, abdomen: 0 };
  const ceiling = { shoulder: 0, chest: 0, abdomen: 0 };
  let y = top;
  for (const [lane, [low, high]] of ranges) {
    ceiling[lane] = y;
    base[lane] = y + gap / 2 + high * perPct;
    y = base[lane] - low * perPct + gap / 2;
  }
  return { base, ceiling, perPct };
}

function ticksOf(report: Report, perPct: number): Record<Lane, number[]> {
  const step = [1, 2, 5, 10].find((s) => s * perPct >= TICK_GAP_PX) ?? 20;
  const upTo = (lane: Lane) => {
    const [, high] = rangeOf(report.trace[lane], lane);
    return Array.from({ length: Math.floor(high / step + 1e-6) }, (_, i) => (i + 1) * step);
  };
  return { shoulder: upTo("shoulder"), chest: upTo("chest"), abdomen: upTo("abdomen") };
}

const EACH_S = 5;
const ROUNDING_S = 0.01;

/** Beats with their bars numbered; counted inside the asked inhale and exhale where these are given; seconds where no beat is known. */
function beatsOf(report: Report, x: (t: number) => number, [start, end]: readonly [number, number], counted: Wedge[]): Beat[] {
  const { first_inhale_s: first, tempo_bpm: tempo } = report.beats;
  if (first === null || tempo === null)
    return wholeBetween(start, end).map((s) => ({ x: x(s), bar: s % EACH_S === 0, label: s % EACH_S === 0 ? `${s} s` : "" }));
  const beat = 60 / tempo;
  return wholeBetween((start - first) / beat, (end - first) / beat).map((k) => {
    const at = first + k * beat;
    if (counted.length) return { x: x(at), ...countOf(at, beat, counted) };
    const bar = k >= 0 && k % METRE === 0;
    return { x: x(at), bar, label: bar ? String(k / METRE + 1) : "" };
  });
}

const wholeBetween = (low: number, high: number) =>
  Array.from({ length: Math.max(Math.floor(high) - Math.ceil(low) + 1, 0) }, (_, i) => Math.ceil(low) + i);

/** What is counted on a beat: from one at the start of the asked inhale, and again at that of the exhale. */
function countOf(at: number, beat: number, asked: Wedge[]): { bar: boolean; label: string } {
  const near = (a: number, b: number) => Math.abs(a - b) < ROUNDING_S;
  const bar = asked.some((wedge) => near(wedge.from, at) || near(wedge.leave, at) || near(wedge.to, at));
  for (const { from, full, leave, to } of asked)
    for (const [low, high] of [
      [from, full],
      [leave, to],
    ] as const)
      if (at > low - ROUNDING_S && at < high - ROUNDING_S) return { bar, label: String(Math.round((at - low) / beat) + 1) };
  return { bar, label: "" };
}
