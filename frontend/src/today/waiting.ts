import type { Take } from "../api/client";

const PLACES = ["first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth"];
const ROUND_S = 5;

/** Seconds until a take is read: what is left of those before it, and its own. Null for one that waits for nothing. */
export function secondsLeft(take: Take, all: Take[], usual_s: number): number | null {
  if (take.state === "reading") return usual_s * (1 - take.progress);
  if (take.state !== "queued") return null;
  const now = all.filter((other) => other.state === "reading").reduce((sum, other) => sum + usual_s * (1 - other.progress), 0);
  return now + usual_s * (placeOf(take, all) + 1);
}

/** How a take waits: its place in the queue and about how long, as it is said. */
export function waitingWords(take: Take, all: Take[], usual_s: number): string {
  const left = secondsLeft(take, all, usual_s);
  if (left === null) return "";
  const about = `about ${roundSeconds(left)} s`;
  if (take.state === "reading") return `${take.stage}, ${about}`;
  const place = placeOf(take, all);
  return `${PLACES[place] ?? `number ${place + 1}`} in the queue, ${about}`;
}

export const roundSeconds = (seconds: number) =>
  seconds < ROUND_S ? Math.max(Math.ceil(seconds), 1) : Math.round(seconds / ROUND_S) * ROUND_S;

/** How many wait to be read before this one: what was filmed in the page comes first, then the oldest. */
const placeOf = (take: Take, all: Take[]) => all.filter((other) => other.state === "queued" && goesFirst(other, take)).length;

const goesFirst = (one: Take, other: Take) => (one.filmed === other.filmed ? one.made_at < other.made_at : one.filmed);
