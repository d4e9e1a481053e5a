import type { Mark, Report, Verdict } from "../api/client";

const IN_FRONT = 4;
const FIRST_ASKED = ["abdomen_leads", "shoulders_still", "full_breath", "not_full_early", "inhale_counts", "exhale_counts", "with_count"];

/** The rows class needs: the faults first, then lead, shoulders, fullness and counts, then what is just about, each in the
 *  table's order. */
export function inFront(verdicts: Verdict[]): Verdict[] {
  const rank = (verdict: Verdict) => {
    if (verdict.outside) return verdict.state === "work" ? 0 : 1;
    const asked = FIRST_ASKED.indexOf(verdict.criterion);
    if (asked >= 0) return 2 + asked;
    return 2 + FIRST_ASKED.length + (verdict.state === "steady" ? 1 : 0);
  };
  const readable = verdicts.filter((v) => v.state !== "unreadable");
  return readable.sort((a, b) => rank(a) - rank(b)).slice(0, IN_FRONT);
}

/** The mark a page opens with: the fault that the cue speaks of, where it is worst; none where nothing is wrong. */
export function firstMark(report: Report): Mark | null {
  const spoken = report.verdicts.find((verdict) => verdict.criterion === report.cue?.criterion);
  const faults = spoken?.marks.filter((mark) => mark.outside) ?? [];
  return faults.find((mark) => mark.state === "work") ?? faults[0] ?? null;
}
