import type { Examples, Proposed } from "../api/client";
import { valueWords } from "../shared/valueWords";
import { firstName } from "../shared/words";

/** Whether each take is fine, by its key. */
export type Sorted = Record<string, boolean>;

/** As the line in force has them, but for those the teacher moved. */
export const sortedBy = ({ examples }: Examples, moved: Sorted): Sorted =>
  Object.fromEntries(examples.map((one) => [one.take_id, moved[one.take_id] ?? one.fine]));

/** Only where some are fine and some are not does a line lie between them. */
export const bothSides = (sorted: Sorted) => new Set(Object.values(sorted)).size === 2;

/** Before which take a line stands, in the order of their numbers; after the last where all lie under it. */
export const placeOf = (examples: Examples["examples"], at: number) => {
  const i = examples.findIndex((one) => one.value > at);
  return i < 0 ? examples.length : i;
};

/** What the line agrees with, and what it would change. */
export function agreesWords(shown: Examples, sorted: Sorted, line: Proposed | null): string {
  const judged = { criterion: shown.criterion, unit: shown.unit };
  const said = (value: number) => valueWords({ ...judged, value });
  if (!line) {
    if (!bothSides(sorted)) return "Leave at least one take up and one down: the line lies between them.";
    return `The line now: ${said(shown.now)}.`;
  }
  const of = shown.examples.length;
  const wrong = shown.examples.filter((one) => line.misjudged.includes(one.take_id));
  const calls = wrong.map((one) => `${firstName(one.student)}'s take ${sorted[one.take_id] ? "not fine" : "fine"}`);
  const but = calls.length ? `; it would call ${calls.join(" and ")}` : "";
  const moves = line.count ? `changes ${line.count} of ${line.takes} takes` : "changes no stored take";
  return `A line at ${said(line.value)} agrees with ${line.agrees} of your ${of}${but}. The line now, ${said(shown.now)}, agrees with ${line.agrees_now}. Moving it ${moves}.`;
}
