import type { Mark, Report, Verdict } from "../api/client";
import { STATE_WORDS } from "../design/StateMark";

export const IN_FRONT = 4;
export const OF_HOLD = 9; // beside the stills and the line of the hands there is room for as many
const FIRST_ASKED = ["abdomen_leads", "shoulders_still", "full_breath", "not_full_early", "inhale_counts", "exhale_counts", "with_count"];

/** The rows class needs: the faults first, then lead, shoulders, fullness and counts, then what is just about, each in the
 *  table's order. held: where the hold is looked at, its rows and those of posture; most: as many as there is room for. */
export function inFront(verdicts: Verdict[], held: boolean, most = IN_FRONT): Verdict[] {
  const rank = (verdict: Verdict) => {
    if (verdict.outside) return verdict.state === "work" ? 0 : 1;
    const asked = FIRST_ASKED.indexOf(verdict.criterion);
    if (asked >= 0) return 2 + asked;
    return 2 + FIRST_ASKED.length + (verdict.state === "steady" ? 1 : 0);
  };
  const readable = verdicts.filter((v) => v.state !== "unreadable" && !(held && v.area === "breath"));
  return readable.sort((a, b) => rank(a) - rank(b)).slice(0, most);
}

export const NAMED = 4; // rows of one reason: more are a list that nobody reads while thirty wait

/** Rows by their names; one left over is named as well, for "1 more" is no shorter. */
export function named(verdicts: Verdict[], most: number): string {
  const titles = verdicts.map(({ title }) => title.toLowerCase());
  const left = titles.length - most;
  return left > 1 ? `${titles.slice(0, most).join(", ")} and ${left} more` : titles.join(", ");
}

/** Whether some rows that are not readable are counted and not named: then there has to be a way to them. */
export const cut = (withheld: Verdict[]) => withheld.some(({ why }) => withheld.filter((other) => other.why === why).length > NAMED + 1);

const TWICE = "told by another row";
const SAID = [STATE_WORDS.work, STATE_WORDS.watch, STATE_WORDS.steady, TWICE, STATE_WORDS.unreadable];

/** The verdicts behind the button, counted; one fault is told once, by one row. */
export function restWords(rest: Pick<Verdict, "state" | "reason">[]): string {
  const words = rest.map(({ state, reason }) => (reason === "said_once" ? TWICE : STATE_WORDS[state]));
  const counted = SAID.map((word) => [word, words.filter((one) => one === word).length] as const).filter(([, n]) => n > 0);
  return `the other ${rest.length}: ${counted.map(([word, n]) => `${n === rest.length ? "all" : n} ${word}`).join(", ")}`;
}

/** The mark a page opens with: the fault that the cue speaks of, where it is worst; none where nothing is wrong. */
export function firstMark(report: Report): Mark | null {
  const spoken = report.verdicts.find((verdict) => verdict.criterion === report.cue?.criterion);
  const faults = spoken?.marks.filter((mark) => mark.outside) ?? [];
  return faults.find((mark) => mark.state === "work") ?? faults[0] ?? null;
}
