import type { Card, Check, Report } from "../src/api/client";

type Times = [start: number, full: number, leave: number, rest: number];

/** A report with the given breaths, a rise of the abdomen in each, and whatever else a test says. */
export function reportOf(times: Times[], more: Partial<Report> = {}): Report {
  const duration = 24;
  const t_s = Array.from({ length: duration * 5 }, (_, i) => i / 5);
  const level = (t: number) => {
    const inside = times.find(([start, , , rest]) => t >= start && t <= rest);
    if (!inside) return 0;
    const [start, full, leave, rest] = inside;
    return 3 * Math.min((t - start) / (full - start), 1, Math.max((rest - t) / (rest - leave), 0));
  };
  const breaths = times.map(([inhale_start_s, inhale_end_s, exhale_start_s, exhale_end_s]) => ({
    inhale_start_s,
    inhale_end_s,
    exhale_start_s,
    exhale_end_s,
    inhale_beats: inhale_end_s - inhale_start_s,
    exhale_beats: exhale_end_s - exhale_start_s,
  }));
  return {
    clip: { duration_s: duration },
    beats: { tempo_bpm: 60, first_inhale_s: 4, source: "clicks", residual_s: 0.002 },
    breaths,
    trace: { t_s, abdomen: t_s.map(level), chest: t_s.map((t) => level(t) / 2), shoulder: t_s.map(() => 0), confidence: t_s.map(() => 1) },
    ...more,
  } as unknown as Report;
}

/** A count card as the server gives it. */
export const cardOf = (inhale: number, pause: number, exhale: number | null, tempo: number, cycles: number): Card => ({
  inhale_beats: inhale,
  pause_beats: pause,
  exhale_beats: exhale,
  empty_beats: 0,
  tempo_bpm: tempo,
  cycles,
  countin_beats: 4,
});

/** A check of counted breathing. */
export const checkOf = (name: string, card: Card | null): Check => ({
  name,
  id: 1,
  kind: "counted_breathing",
  taught: {},
  notes: "",
  dynamic: "any",
  articulation: "any",
  card,
  view: "auto",
  position: "seated",
  instrument: "clarinet",
  with_instrument: false,
  asks: "where",
  full_breath: false,
  countin_words: [],
  contrast: "none",
  sets: [],
  shown: "",
});
