import { useNavigate } from "react-router";
import { mayBeAsked } from "../shared/asked";

import type { Take, Today } from "../api/client";
import { useToday } from "../api/queries";
import { firstName, instrumentWords } from "../shared/words";
import { nextOf } from "../shared/order";
import { useUploads } from "../shared/uploads";

export type Onward = {
  again: { seat: number; words: string; withoutIt: string | null } | null;
  next: { words: string; short: string };
};

/** The ways on from a take: the same student once more, where they sit on a chair of today's with something to count, and whoever comes next. */
export function onwardOf(take: Take, today: Today | undefined, busy: number[]): Onward {
  const lesson = today?.lesson;
  const next = lesson && nextOf(lesson, busy);
  const seat = lesson?.seats.find(({ student }) => student.id === take.student.id);
  const may = seat && mayBeAsked(seat.student, seat.check) && !seat.away && seat.check.card !== null;
  const held = may && seat.check.with_instrument && seat.check.kind !== "hold";
  const words = seat?.take?.id === take.id ? `Film try ${take.try_number + 1}` : `Film ${firstName(take.student.name)}`;
  return {
    again: may ? { seat: seat.id, words, withoutIt: held ? `Film without the ${instrumentWords(seat.student.instrument)}` : null } : null,
    next: next
      ? { words: `Next: ${next.student.name}`, short: `Next: ${firstName(next.student.name)}` }
      : { words: "Today", short: "Today" },
  };
}

/** The same with where they lead. */
export function useOnward(take: Take) {
  const go = useNavigate();
  const busy = useUploads().all.filter((one) => one.trouble === null);
  const onward = onwardOf(
    take,
    useToday().data,
    busy.map((one) => one.seat.id),
  );
  const { again } = onward;
  const film = again && (() => go(`/film/${again.seat}`));
  const filmWithout = again?.withoutIt ? () => go(`/film/${again.seat}`, { state: { withoutIt: true } }) : null;
  return { ...onward, film, filmWithout, toNext: () => go("/") };
}
