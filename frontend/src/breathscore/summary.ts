import type { Report } from "../api/client";

/** One spoken sentence for a score. */
export function summaryOf(report: Report): string {
  const count = report.breaths.length;
  if (!count) return "Breath score without a whole breath.";
  const mean = (values: (number | null | undefined)[]) => {
    const known = values.filter((v): v is number => v != null);
    return known.length ? (known.reduce((a, b) => a + b, 0) / known.length).toFixed(1) : null;
  };
  const inhale = mean(report.breaths.map((b) => b.inhale_beats));
  const exhale = mean(report.breaths.map((b) => b.exhale_beats));
  const timing = inhale && exhale ? `, on average ${inhale} beats in and ${exhale} beats out` : "";
  return `Breath score of ${count} ${count === 1 ? "breath" : "breaths"}${timing}.`;
}
