import { useEffect, useRef } from "react";

import type { Lesson } from "../api/client";
import { usePutInFront } from "../api/queries";

/** Keeps the chair in front the same on a page and the phones that film for it: says which it is here, and follows when another is chosen there. What
 * was asked for before this page's own last word is no news. */
export function useInFront(lesson: Lesson, seatId: number | undefined, onOther: (seatId: number) => void) {
  const { mutateAsync } = usePutInFront();
  const now = lesson.seat_now;
  const known = useRef({ seat: now?.seat_id, number: now?.number ?? 0, saying: 0 });
  const other = useRef(onOther);
  useEffect(() => {
    other.current = onOther;
  });
  useEffect(() => {
    const one = known.current;
    if (seatId === undefined || seatId === one.seat) return;
    one.seat = seatId;
    one.saying += 1;
    mutateAsync({ lessonId: lesson.id, seatId })
      .then(({ number }) => (one.number = Math.max(one.number, number)))
      .catch(() => undefined) // the line is gone: this page keeps its own chair
      .finally(() => (one.saying -= 1));
  }, [lesson.id, seatId, mutateAsync]);
  useEffect(() => {
    const one = known.current;
    if (!now || one.saying > 0 || now.number <= one.number) return;
    one.number = now.number;
    if (now.seat_id === one.seat) return;
    one.seat = now.seat_id;
    other.current(now.seat_id);
  }, [now]);
}
