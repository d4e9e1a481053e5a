import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

import { hearClock } from "./clock";
import { TEACH } from "./queries";
import type { Bench, Run, Take, Today } from "./client";

type Progress = { kind: "take"; id: string; state: Take["state"] | "gone"; stage: string; progress: number; report_version: number };
type Told = { kind: "all" } | { kind: "lesson" } | { kind: "care" } | { kind: "rules" } | { kind: "bench"; run: Run } | Progress;

const waits = (state: string) => state === "queued" || state === "reading";

/** Listens for what happens in the programme, as long as it is shown: nothing is asked for again and again. */
export function useTold() {
  const queries = useQueryClient();
  useEffect(() => {
    const line = new EventSource("/api/events");
    line.onmessage = (event) => hear(queries, JSON.parse(event.data) as Told);
    return () => line.close();
  }, [queries]);
}

/** Progress is put where it is shown; anything else is looked up anew. */
export function hear(queries: QueryClient, told: Told) {
  if (told.kind === "bench") return void putRun(queries, told.run);
  if (told.kind === "rules") {
    // an own answer that is on its way comes after what is told of the one before
    if (!queries.isMutating({ mutationKey: TEACH })) void queries.invalidateQueries({ queryKey: ["method"] });
    return;
  }
  if (told.kind === "care") {
    void queries.invalidateQueries({ queryKey: ["care"] });
    void queries.invalidateQueries({ queryKey: ["bench"] });
    return;
  }
  if (told.kind !== "take") {
    void queries.invalidateQueries({
      predicate: ({ queryKey }) =>
        ["today", "bench", "class"].includes(String(queryKey[0])) ||
        (told.kind === "all" && ["take", "care"].includes(String(queryKey[0]))),
    });
    return;
  }
  const known = queries.getQueryData<Take>(["take", told.id]);
  const today = queries.getQueryData<Today>(["today"]);
  const listed = today?.just_read.find((take) => take.id === told.id);
  if (waits(told.state) && (!today || listed)) {
    const { stage, progress } = told;
    const state = told.state as Take["state"];
    const moved = (take: Take): Take => (take.id === told.id ? { ...take, state, stage, progress } : take);
    if (known) queries.setQueryData<Take>(["take", told.id], moved(known));
    if (today) queries.setQueryData<Today>(["today"], withTakes(today, moved));
    return;
  }
  void queries.invalidateQueries({ queryKey: ["today"] });
  if (told.state === "gone") return;
  for (const of of ["take", "drawings"]) void queries.invalidateQueries({ queryKey: [of, told.id] });
}

/** A section as it stands now. An answer that was on its way before is not waited for: it would put the section back. */
export async function putRun(queries: QueryClient, run: Run) {
  hearClock(run.now);
  const asked = queries.isFetching({ queryKey: ["bench"] }) > 0;
  if (asked) await queries.cancelQueries({ queryKey: ["bench"] }, { revert: false });
  queries.setQueryData<Bench>(
    ["bench"],
    (known) => known && { sections: known.sections.map((one) => (one.card === run.card ? withRun(one, run) : one)) },
  );
  if (asked) await queries.invalidateQueries({ queryKey: ["bench"] });
}

function withRun(section: Bench["sections"][number], run: Run) {
  const before = section.runs.find((one) => one.id === run.id);
  if (before && before.taps > run.taps) return section;
  return { ...section, runs: [...section.runs.filter((one) => one.id !== run.id), run] };
}

/** Today with every take changed the same way. */
function withTakes(today: Today, changed: (take: Take) => Take): Today {
  return {
    ...today,
    just_read: today.just_read.map(changed),
    lesson: today.lesson && {
      ...today.lesson,
      seats: today.lesson.seats.map((seat) => (seat.take ? { ...seat, take: changed(seat.take) } : seat)),
    },
  };
}
