import { useSeat } from "../api/queries";
import { firstName } from "../shared/words";
import { sitsBeside, stepped, type Over, type Way } from "./seats";

/** Chairs that are moved, one after the other, each from where it stands by then. onMoved: what was done, in words, whose chair it is, and how everybody sat
before. */
export function useSeats(nameOf: (id: number) => string, onMoved: (words: string, id: number, before: number[][]) => void) {
  const seat = useSeat(({ id, row, chair, before }) => onMoved(`${firstName(nameOf(id))} sits in row ${row}, chair ${chair}.`, id, before));
  const step = (id: number, way: Way) => seat.mutate({ id, to: (rows) => stepped(rows, id, way) });
  const put = (id: number, where: Over | null) => seat.mutate({ id, to: (rows) => sitsBeside(rows, id, where) });
  return { step, put, trouble: seat.error?.message };
}
