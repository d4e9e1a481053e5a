import type { Lesson, Seat } from "../api/client";
import { mayBeAsked } from "./asked";

/** Keys with one of them moved to a place: before whoever stands there now. */
export function movedTo(keys: number[], key: number, place: number): number[] {
  const others = keys.filter((one) => one !== key);
  const at = Math.min(Math.max(place, 0), others.length);
  return [...others.slice(0, at), key, ...others.slice(at)];
}

/** The same lesson with its chairs in another order: the minutes stay where they are. A chair that came since keeps its place behind them. */
export function inOrder(lesson: Lesson, seatIds: number[]): Lesson {
  const at = (seat: Seat) => (seatIds.includes(seat.id) ? seatIds.indexOf(seat.id) : seatIds.length);
  const seats = lesson.seats.toSorted((a, b) => at(a) - at(b));
  return { ...lesson, seats: seats.map((seat, i) => ({ ...seat, place: lesson.seats[i]!.place, minute: lesson.seats[i]!.minute })) };
}

/** Whether a clip came from a chair that could be read, or may be. */
export const filmed = ({ take }: Seat) => take !== null && take.state !== "failed";

/** Whether a chair is still to be filmed. */
export const waiting = (seat: Seat) => !filmed(seat) && !seat.away;

/** The chair that comes next, first of all that wait and may be filmed. busy: chairs whose clip is on its way. */
export const nextOf = ({ seats }: Lesson, busy: number[], except?: Seat): Seat | undefined =>
  seats.find((seat) => waiting(seat) && mayBeAsked(seat.student, seat.check) && seat.id !== except?.id && !busy.includes(seat.id));

/** The chair that comes after one: the first that waits behind it, else the first that waits at all. */
export const nextAfter = (lesson: Lesson, seat: Seat): Seat | null =>
  nextOf({ ...lesson, seats: lesson.seats.filter(({ place }) => place > seat.place) }, [], seat) ?? nextOf(lesson, [], seat) ?? null;
