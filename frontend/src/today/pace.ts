import type { Lesson } from "../api/client";

const MINUTE_MS = 60_000;

/** Minutes since the lesson began; null before it and after its end. */
export function minuteOf({ starts_at, minutes }: Pick<Lesson, "starts_at" | "minutes">, now: Date): number | null {
  const gone = (now.getTime() - new Date(starts_at).getTime()) / MINUTE_MS;
  return gone < 0 || gone > minutes ? null : gone;
}

/** How far the lesson is before or behind its line of chairs, in students; nothing before it begins, after it ends, or where nobody is left. */
export function paceWords(lesson: Lesson, now: Date): string {
  const gone = minuteOf(lesson, now);
  const dealt = lesson.seats.filter((seat) => seat.take !== null || seat.away).length;
  if (gone === null || dealt === lesson.seats.length) return "";
  const each = lesson.seats.length > 1 ? lesson.seats[1]!.minute - lesson.seats[0]!.minute : 0;
  const due = lesson.seats.filter((seat) => seat.minute + each <= gone).length;
  const ahead = dealt - due;
  if (ahead === 0) return "on time";
  const students = `${Math.abs(ahead)} ${Math.abs(ahead) === 1 ? "student" : "students"}`;
  return ahead > 0 ? `${students} early` : `${students} late`;
}
