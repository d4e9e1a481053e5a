import type { Repetitions } from "../api/client";

/** What was done, and what that asks for next; nothing at the first try. */
export function repeatWords({ correct, tries, holds_after }: Repetitions): { done: string; next: string } | null {
  if (tries < 2) return null;
  return { done: `correct ${correct} of ${tries} times`, next: nextWords(correct, holds_after) };
}

function nextWords(correct: number, holds_after: number | null): string {
  if (holds_after === null) return "";
  const usually = `here it usually holds after ${holds_after}`;
  return correct < holds_after ? `${usually}, so more of the same` : `${usually}, so on to the next card`;
}
