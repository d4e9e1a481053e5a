import type { Card, MirrorOut } from "../api/client";
import type { Lane } from "../breathscore/layout";
import { restOf } from "../breathscore/layout";
import { marksOf } from "../cards/draft";

export const SHOWN_S = 8;
export const LANES: readonly Lane[] = ["shoulder", "chest", "abdomen"];
const LEAST_PCT = 1.2; // a lane is at least so high, so that noise is not drawn large

export type Drawn = { lane: Lane; base: number; points: { x: number; y: number }[]; tip: { x: number; y: number } | null };
export type LanesPlace = { left: number; right: number; top: number; bottom: number };

/** The lanes of the last seconds on one scale, time from left to right, the newest at the right edge. */
export function lanesOf(shown: MirrorOut, place: LanesPlace): Drawn[] {
  const now = shown.t_s.at(-1) ?? 0;
  const moved = Object.fromEntries(
    LANES.map((lane) => {
      const rest = restOf(shown[lane]);
      return [lane, shown[lane].map((value) => value - rest)];
    }),
  ) as Record<Lane, number[]>;
  const highest = LANES.map((lane) => Math.max(LEAST_PCT, ...moved[lane]));
  const perPct = (place.bottom - place.top) / highest.reduce((sum, one) => sum + one * 1.15, 0);
  const x = (t: number) => place.right - ((now - t) / SHOWN_S) * (place.right - place.left);
  let y = place.top;
  return LANES.map((lane, i) => {
    y += highest[i]! * 1.15 * perPct;
    const base = y;
    const points = moved[lane].map((value, k) => ({ x: x(shown.t_s[k]!), y: base - Math.max(value, -0.4) * perPct }));
    return { lane, base, points, tip: points.at(-1) ?? null };
  });
}

/** The asked breaths in the last seconds: where each begins, is full, turns and ends, px; the one that comes too. */
export function askedOf(card: Card, began_ms: number | null, now_s: number, place: LanesPlace) {
  if (began_ms === null) return [];
  const beat_s = 60 / card.tempo_bpm;
  const first_s = began_ms / 1000 + card.countin_beats * beat_s;
  const { full, leave, out, rest } = marksOf(card);
  const x = (t: number) => place.right - ((now_s - t) / SHOWN_S) * (place.right - place.left);
  return Array.from({ length: card.cycles }, (_, i) => {
    const from_s = first_s + i * rest * beat_s;
    return { from: x(from_s), full: x(from_s + full * beat_s), leave: x(from_s + leave * beat_s), to: x(from_s + out * beat_s) };
  }).filter(({ from, to }) => to > place.left && from < place.right + 80);
}
