import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";

import type { Lesson } from "../api/client";
import { usePutInFront } from "../api/queries";
import { ChairInFront } from "./chairInFront";

const KEY = "chair in front";

/** Kept beside what was loaded, so that signing out forgets it as well: the next session has words of its own. */
function chairOf(queries: QueryClient, lesson: Lesson): ChairInFront {
  const known = queries.getQueryData<ChairInFront>([KEY, lesson.id]);
  if (known) return known;
  queries.setQueryDefaults([KEY], { gcTime: Infinity }); // no page watches it
  const chair = new ChairInFront(lesson.seat_now);
  queries.setQueryData([KEY, lesson.id], chair);
  return chair;
}

/** Keeps the chair in front the same on a page and the phones that film for it: says which it is here, and follows when another is chosen there, where
 * the page is free to go. Returns the chair that is still to be followed as long as it is not. */
export function useInFront(lesson: Lesson, seatId: number | undefined, onOther: (seatId: number) => void, free = true): number | null {
  const { mutateAsync } = usePutInFront();
  const queries = useQueryClient();
  const chair = chairOf(queries, lesson);
  const now = lesson.seat_now;
  const other = useRef(onOther);
  useEffect(() => {
    other.current = onOther;
  });
  useEffect(() => {
    if (seatId === undefined || !chair.begins(seatId)) return;
    mutateAsync({ lessonId: lesson.id, seatId })
      .then(({ number }) => chair.said(number))
      .catch(() => chair.said(null));
  }, [chair, lesson.id, seatId, mutateAsync]);
  useEffect(() => {
    const seat = free ? chair.hears(now) : null;
    if (seat !== null) other.current(seat);
  }, [chair, now, free]);
  return free ? null : chair.elsewhere(now);
}
