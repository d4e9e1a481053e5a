import type { Lesson } from "../api/client";

const MINUTE_MS = 60_000;

/** How far the lesson is before or behind its line of chairs, in students; nothing before it begins, after it ends, or where nobody is left. */
export function paceWords(lesson: Lesson, now: Date): string {
  const gone = (now.getTime() - new Date(lesson.starts_at).getTime()) / MINUTE_MS;
  const dealt = lesson.seats.filter((seat) => seat.take !== null || seat.away).length;
  if (gone < 0 || gone > lesson.minutes || dealt === lesson.seats.length) return "";
  const each = lesson.seats.length > 1 ? lesson.seats[1]!.minute - lesson.seats[0]!.minute : 0;
  const due = lesson.seats.filter((seat) => seat.minute + each <= gone).length;
  const ahead = dealt - due;
  if (ahead === 0) return "on time";
  const students = `${Math.abs(ahead)} ${Math.abs(ahead) === 1 ? "student" : "students"}`;
  return ahead > 0 ? `${students} early` : `${students} late`;
}
