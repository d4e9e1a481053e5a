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
