import type { Backup } from "../api/client";
import { momentWords } from "../shared/words";

const WORDS: Record<number, string> = { 7: "a week", 28: "four weeks", 91: "a term, 13 weeks", 365: "a year" };

/** A time to keep clips, as it is chosen. */
export const wordsOf = (days: number | null) => (days === null ? "until somebody deletes them" : (WORDS[days] ?? `${days} days`));

/** What is sent for a choice: "" keeps them until somebody deletes them. */
export const chosenDays = (value: string) => (value === "" ? null : Number(value));

const takes = (count: number) => (count === 1 ? "one take" : `${count} takes`);

/** What goes at once with a choice of so many days. */
export function goWords(older: number, days: number | null): string {
  if (older === 0) return "Nothing is older than that now.";
  return `Clip and stills of ${takes(older)} are older than ${wordsOf(days)} and go at once.`;
}

/** What went. */
export const goneWords = (gone: number) =>
  gone === 0 ? "Kept so from now on." : `Kept so from now on. Clip and stills of ${takes(gone)} were deleted.`;

/** How a backup stands. alarm: somebody has to do something. */
export function backupWords({ made_at, behind, here }: Omit<Backup, "path">): { says: string; alarm: boolean } {
  const made = made_at === null ? "Never made whole." : `As of ${momentWords(made_at)}.`;
  if (behind && here) return { says: `${made} What was deleted or withdrawn since goes from it within a minute.`, alarm: false };
  if (behind) return { says: `${made} It still holds what was deleted or withdrawn since. Plug it in: that goes by itself.`, alarm: true };
  if (!here) return { says: `${made} It is not plugged in; nothing newer is kept twice.`, alarm: false };
  return { says: `${made} It is made anew every day, and within a minute after something was deleted or withdrawn.`, alarm: false };
}
