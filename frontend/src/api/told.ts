import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

import { hearClock } from "./clock";
import type { Bench, Run, Take, Today } from "./client";

type Progress = { kind: "take"; id: string; state: Take["state"] | "gone"; stage: string; progress: number; report_version: number };
/** said: of a take, beside its reading: a verdict otherwise, a tick, a cue, a drawing, how it felt. It is no progress, also while that take is read again. */
type Told =
  | { kind: "said"; id: string }
  | { kind: "all" | "lesson" | "care" | "cards" | "rules" | "people" }
  | { kind: "bench"; run: Run }
  | Progress;

const waits = (state: string) => state === "queued" || state === "reading";

let early: EventSource | null = null;

/** Listens from the first moment of the page on. The line begins by saying that anything may have changed: heard before anything was asked for,
 * nothing need be asked for twice. Where nobody is signed in it is refused. */
export function listenEarly(queries: QueryClient) {
  early = lineTo(queries);
}

/** Listens for what happens in the programme, as long as it is shown: nothing is asked for again and again. */
export function useTold() {
  const queries = useQueryClient();
  useEffect(() => {
    const first = early;
    early = null;
    return held(() => lineTo(queries), first);
  }, [queries]);
}

const CLOSED = 2; // of an event source
const AGAIN_MS = 3_000;
type Line = Pick<EventSource, "readyState" | "onerror" | "close">;

/** Holds a line until the returned function is called. A browser opens one that broke by itself, but not one that was refused: no room for another page, the
 * program just begun anew, or not signed in yet when it was asked for. first: one that was opened before. */
export function held(open: () => Line, first: Line | null): () => void {
  let line = first && first.readyState !== CLOSED ? first : open();
  let waiting: ReturnType<typeof setTimeout>;
  const watch = () => {
    line.onerror = () => {
      if (line.readyState === CLOSED) waiting = setTimeout(anew, AGAIN_MS);
    };
  };
  const anew = () => {
    line = open();
    watch();
  };
  watch();
  return () => {
    clearTimeout(waiting);
    line.onerror = null;
    line.close();
  };
}

function lineTo(queries: QueryClient): EventSource {
  const line = new EventSource("/api/events");
  const hear = hearing(queries);
  line.onmessage = (event) => hear(JSON.parse(event.data) as Told);
  return line;
}

/** What a page does with what it is told: progress is put where it is shown, anything else is looked up anew. */
export function hearing(queries: QueryClient): (told: Told) => void {
  const lookUp = lookingUp(queries);
  const elsewhere = new Set<string>(); // takes that are not on Today though it was looked up for them
  const lookUpTake = (id: string, gone = false) => {
    void lookUp(["today"]);
    if (!gone) for (const kind of OF_A_TAKE) void lookUp([kind, id]);
    for (const kind of OF_A_RECORD) void lookUp([kind]);
  };
  const hearTake = (told: Progress) => {
    const of = `${told.id} ${told.state}`;
    const today = queries.getQueryData<Today>(["today"]);
    if (waits(told.state) && (!today || elsewhere.has(of) || lists(today, told.id))) return putProgress(queries, told);
    elsewhere.add(of);
    lookUpTake(told.id, told.state === "gone");
  };
  return (told) => {
    if (told.kind === "take") return hearTake(told);
    if (told.kind === "said") return lookUpTake(told.id);
    if (told.kind === "bench") return void putRun(queries, told.run);
    for (const kind of SHOWN[told.kind]) void lookUp([kind]);
  };
}

const OF_A_TAKE = ["take", "drawings", "overrules", "ticks", "cue", "repetitions"];
const OF_A_RECORD = ["results", "takes-of"];

const ANYTHING = ["today", "bench", "class", "care", "cards", "method", "people", "keeping", ...OF_A_TAKE, ...OF_A_RECORD];

/** What may look different, by what happened. */
const SHOWN = {
  care: ["care", "bench"],
  cards: ["cards"],
  rules: ["method"],
  people: ["me", ...ANYTHING], // by the programme's clock a day begins and ends
  lesson: ["today", "bench", "class", ...OF_A_RECORD],
  all: ANYTHING,
};

/** Looks something up anew. What is on its way is let arrive first and looked up once more after it: where news comes more often than the line takes for
 * an answer, none would ever arrive else. */
function lookingUp(queries: QueryClient): (queryKey: string[]) => Promise<void> {
  const late = new Set<string>();
  return async (queryKey) => {
    const key = queryKey.join(" ");
    const ownOnItsWay = () => queries.isMutating({ mutationKey: queryKey }) > 0; // it is shown already, and asks by itself once it is kept
    if (late.has(key) || ownOnItsWay()) return;
    if (queries.isFetching({ queryKey }) > 0) {
      late.add(key);
      await queries.invalidateQueries({ queryKey }, { cancelRefetch: false });
      late.delete(key);
      if (ownOnItsWay()) return;
    }
    await queries.invalidateQueries({ queryKey });
  };
}

const lists = ({ lesson, just_read }: Today, id: string) =>
  just_read.some((take) => take.id === id) || (lesson?.seats.some(({ take }) => take?.id === id) ?? false);

function putProgress(queries: QueryClient, { id, state, stage, progress }: Progress) {
  const moved = (take: Take): Take => (take.id === id ? { ...take, state: state as Take["state"], stage, progress } : take);
  queries.setQueryData<Take>(["take", id], (take) => take && moved(take));
  queries.setQueryData<Today>(["today"], (today) => today && withTakes(today, moved));
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
