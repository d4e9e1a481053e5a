import type { Check, Seat } from "../api/client";
import { SCHOOLS, type Question } from "./schools";

/** Whether the consents that a check needs hold: to be filmed, and to lie down where it is done lying. */
export const mayBeAsked = ({ may_film_until, may_lie }: Seat["student"], { position }: Pick<Check, "position">) =>
  may_film_until !== null && (may_lie || position !== "lying");

export const POSITIONS: Record<Check["position"], string> = {
  seated: "seated",
  standing: "standing",
  lying: "lying on a mat",
  auto: "as they are",
};
/** How loud, and how a note begins. */
export const DYNAMICS: Record<Check["dynamic"], string> = {
  any: "as it comes",
  soft: "soft",
  medium: "medium loud",
  loud: "loud",
  swell: "growing louder",
  fade: "growing softer",
};
export const ARTICULATIONS: Record<Check["articulation"], string> = {
  any: "as it comes",
  air: "begun by the air alone",
  tongued: "tongued",
  slurred: "slurred",
  short: "short notes",
};

/** What is played in the breath: "concert B flat, soft, tongued"; empty where the card says nothing of it. */
export const playedWords = ({ with_instrument, notes, dynamic, articulation }: Check) =>
  !with_instrument
    ? ""
    : [notes, dynamic !== "any" && DYNAMICS[dynamic], articulation !== "any" && ARTICULATIONS[articulation]].filter(Boolean).join(", ");

/** All that a card asks beside its count, in one line; empty where it asks nothing more. */
export const besidesWords = (check: Check) => [playedWords(check), taughtWords(check)].filter(Boolean).join("; ");

/** The card's own answers to how one teaches, by question, in the order of the page on teaching. */
export const FLIPPING = ["breathing_in", "breathing_out", "between", "fullness"] as const satisfies Question[];

/** By which other schools a card is judged: "let it fall out, a counted pause"; empty where it follows the programme. */
export const taughtWords = ({ taught }: Check) =>
  FLIPPING.map((question) => SCHOOLS[taught[question] ?? ""]?.title.toLowerCase())
    .filter(Boolean)
    .join(", ");
