import type { Member } from "../api/client";
import { firstName } from "../shared/words";

export const DUE_DAYS = 14;
export const SHOWN_DAYS = 28;
const DAY_MS = 86_400_000;

/** Days since a student was last seen; null for one who never was. */
export const daysSince = (member: Member, now: Date) =>
  member.seen_at ? (now.getTime() - new Date(member.seen_at).getTime()) / DAY_MS : null;

const shortDay = (day: Date) => day.toLocaleDateString("en-GB", { day: "numeric", month: "short" });

/** When a student was seen or is due, in two words. */
export function seenWords(member: Member, now: Date): string {
  if (member.student.may_film_until === null) return "not filmed";
  if (!member.seen_at) return "not seen yet";
  const seen = new Date(member.seen_at);
  return isDue(member, now) ? `due ${shortDay(new Date(seen.getTime() + DUE_DAYS * DAY_MS))}` : `seen ${shortDay(seen)}`;
}

/** Whether a student is due for a look: never seen, or too long ago; nobody is who may not be filmed. */
export function isDue(member: Member, now: Date): boolean {
  if (member.student.may_film_until === null) return false;
  const days = daysSince(member, now);
  return days === null || days > DUE_DAYS;
}

/** The class in one line. */
export function classWords(members: Member[], now: Date): string {
  const may = members.filter((one) => one.student.may_film_until !== null).length;
  const due = members.filter((one) => isDue(one, now)).length;
  return `${members.length} ${members.length === 1 ? "student" : "students"}, ${may} may be filmed, ${due} due for a look`;
}

/** How many students a lesson holds, by the same arithmetic as the server's. */
/** Who has to wait for the next lesson; nothing where everybody fits. */
export function leftWords(names: string[]): string {
  if (!names.length) return "";
  const some = names.slice(0, MOST_LEFT).map(firstName).join(", ");
  const more = names.length > MOST_LEFT ? ` and ${names.length - MOST_LEFT} more` : "";
  return `${names.length} ${names.length === 1 ? "comes" : "come"} first next time: ${some}${more}`;
}
const MOST_LEFT = 3;

export const fitting = (minutes: number, each: number, before: number, after: number) =>
  Math.max(Math.floor((minutes - before - after) / each + 1e-9), 0);
