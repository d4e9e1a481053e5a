import { useMutationState, useQueryClient, type Mutation } from "@tanstack/react-query";
import { useMemo } from "react";

import type { Lesson, Seat } from "../api/client";
import { REORDER, useReorder, type Reordered } from "../api/queries";
import { inOrder, movedTo } from "../shared/order";

const UNDER_WAY = { mutationKey: REORDER, status: "pending" } as const;
const reordered = ({ state }: Mutation) => state.variables as Reordered;

/** A lesson's chairs as they were put, drawn so at once: keys pressed in a row each go on from where the chair stands by then, whatever has arrived of it. */
export function useOrder(asKept: Lesson, onTrouble: (words: string) => void) {
  const queries = useQueryClient();
  const reorder = useReorder();
  const newest = (under: Reordered[]) => under.findLast(({ lessonId }) => lessonId === asKept.id);
  const last = newest(useMutationState({ filters: UNDER_WAY, select: reordered }));
  const lesson = useMemo(() => (last ? inOrder(asKept, last.seatIds) : asKept), [asKept, last]);
  const ids = () => newest(queries.getMutationCache().findAll(UNDER_WAY).map(reordered))?.seatIds ?? lesson.seats.map(({ id }) => id);
  const move = (seat: Seat, place: number) =>
    reorder.mutate({ lessonId: lesson.id, seatIds: movedTo(ids(), seat.id, place) }, { onError: (error) => onTrouble(error.message) });
  const nudge = (seat: Seat, by: number) => move(seat, ids().indexOf(seat.id) + by);
  return { lesson, move, nudge };
}
