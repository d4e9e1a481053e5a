import type { Report } from "../api/client";

const METRE = 4;
const EARLY_S = 0.02;

/** Where in the count a moment of the clip lies. */
export function momentWords(report: Report, t_s: number): string {
  const { first_inhale_s: first, tempo_bpm: tempo } = report.beats;
  const seconds = `${t_s.toFixed(1)} s`;
  const inside = breathAt(report, t_s);
  if (first === null || tempo === null) return seconds;
  const beat = ((t_s - first) * tempo) / 60;
  if (beat < 0) return `count-in · ${seconds}`;
  const breath = inside >= 0 ? `breath ${inside + 1}, ` : "";
  return `${breath}bar ${Math.floor(beat / METRE) + 1}, beat ${(Math.floor(beat) % METRE) + 1} · ${seconds}`;
}

/** The breath a moment belongs to, the later one where two meet; -1 between breaths. */
export function breathAt(report: Report, t_s: number): number {
  return report.breaths.findLastIndex(
    (b) => b.inhale_start_s != null && b.exhale_end_s != null && t_s >= b.inhale_start_s - EARLY_S && t_s <= b.exhale_end_s,
  );
}
