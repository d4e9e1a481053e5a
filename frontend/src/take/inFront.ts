import type { Verdict } from "../api/client";

const IN_FRONT = 4;
const FIRST_ASKED = ["abdomen_leads", "shoulders_still", "not_full_early", "inhale_counts", "exhale_counts", "with_count"];

/** The rows class needs: the faults first, then lead, shoulders, fullness and counts, each in the table's order. */
export function inFront(verdicts: Verdict[]): Verdict[] {
  const rank = (verdict: Verdict) => {
    if (verdict.outside) return verdict.state === "work" ? 0 : 1;
    const asked = FIRST_ASKED.indexOf(verdict.criterion);
    return asked < 0 ? 2 + FIRST_ASKED.length : 2 + asked;
  };
  const readable = verdicts.filter((v) => v.state !== "unreadable");
  return readable.sort((a, b) => rank(a) - rank(b)).slice(0, IN_FRONT);
}
