import type { Earlier } from "../api/client";
import { dayWords } from "./words";

const ORDINALS = ["", "", "second", "third", "fourth", "fifth"];

/** What earlier days say of a reading, the weightiest of it: "third lesson running", "may go up: 4-0-6 at 72", "steady since 8 November". */
export function pastWords({ running, steady_since, move, to }: Earlier): string {
  if (running > 1) return ORDINALS[running] ? `${ORDINALS[running]} lesson running` : `${running} lessons running`;
  if (move === "up") return `may go up: ${cardWords(to)}`;
  if (move === "back") return `perhaps back: ${cardWords(to)}`;
  return steady_since ? `steady since ${dayWords(steady_since)}` : "";
}

/** A card's short notation as it is read: "4-0-6@72x3" is 4-0-6 at 72. */
const cardWords = (name: string) => name.replace(/x.*$/, "").replace("@", " at ");
