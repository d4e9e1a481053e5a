import { useEffect, useRef } from "react";

import type { Lesson } from "../api/client";
import { usePutInFront } from "../api/queries";

/** Keeps the chair in front the same on every screen: says which it is here, and follows when somebody chooses another elsewhere. */
export function useInFront(lesson: Lesson, seatId: number | undefined, onOther: (seatId: number) => void) {
  const { mutate } = usePutInFront();
  const known = useRef(lesson.seat_now);
  const other = useRef(onOther);
  useEffect(() => {
    other.current = onOther;
  });
  useEffect(() => {
    if (seatId === undefined || seatId === known.current) return;
    known.current = seatId;
    mutate({ lessonId: lesson.id, seatId });
  }, [lesson.id, seatId, mutate]);
  useEffect(() => {
    if (lesson.seat_now === null || lesson.seat_now === known.current) return;
    known.current = lesson.seat_now;
    other.current(lesson.seat_now);
  }, [lesson.seat_now]);
}
