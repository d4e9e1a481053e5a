import type { BenchCard, Rung } from "../api/client";

/** The longest that the part alone has sounded in one breath, s; null where nobody measured. */
export function longest({ tries }: Rung): number | null {
  const known = tries.flatMap((one) => (one.length_s === null ? [] : [one.length_s]));
  return known.length ? Math.max(...known) : null;
}

/** How long it may sound, in words; "" where no guide is known. */
export const guideWords = (alone: BenchCard["alone"]) => (alone?.good_s ? `${alone.good_s} s is good, ${alone.excellent_s} excellent` : "");
