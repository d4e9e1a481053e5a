import type { Repetitions } from "../api/client";

/** What was done of the card, and what that asks for next; nothing at the first try. */
export function repeatWords({ correct, tries, holds_after }: Repetitions): string {
  if (tries < 2) return "";
  return `this card correct ${correct} of ${tries} times${nextWords(correct, holds_after)}`;
}

function nextWords(correct: number, holds_after: number | null): string {
  if (holds_after === null) return "";
  const usually = `: here it usually holds after ${holds_after}`;
  return correct < holds_after ? `${usually}, so more of the same` : `${usually}, so on to the next card`;
}
