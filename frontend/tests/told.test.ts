import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { describe, expect, it, vi } from "vitest";

import type { Take, Today } from "../src/api/client";
import { TEACH } from "../src/api/queries";
import { hearing, held } from "../src/api/told";

const take = (id: string, state: Take["state"]) => ({ id, state, stage: "waiting", progress: 0 }) as Take;

function pages(): QueryClient {
  const queries = new QueryClient();
  const seats = [
    { id: 1, take: take("a", "queued") },
    { id: 2, take: null },
  ];
  queries.setQueryData(["today"], { lesson: { id: 1, seats }, just_read: [take("a", "queued")], last_time: {} } as unknown as Today);
  queries.setQueryData(["take", "a"], take("a", "queued"));
  queries.setQueryData(["drawings", "a"], { drawings: [] });
  queries.setQueryData(["class"], { members: [], rows: [] });
  queries.setQueryData(["overrules", "a"], []);
  queries.setQueryData(["ticks", "a"], { items: [] });
  queries.setQueryData(["cue", "a", "axis_level", ""], {});
  queries.setQueryData(["takes-of", 3], []);
  queries.setQueryData(["results", 3], {});
  queries.setQueryData(["cards"], { cards: [] });
  queries.setQueryData(["me"], {});
  return queries;
}

const stale = (queries: QueryClient, key: unknown[]) => queries.getQueryState(key)?.isInvalidated;

describe("what a page is told", () => {
  it("puts progress on the row, the chair and the take, and asks nothing", () => {
    const queries = pages();
    hearing(queries)({ kind: "take", id: "a", state: "reading", stage: "watching", progress: 0.4, report_version: 0 });
    const today = queries.getQueryData<Today>(["today"]);
    expect(today?.just_read[0]).toMatchObject({ state: "reading", stage: "watching", progress: 0.4 });
    expect(today?.lesson?.seats[0]?.take).toMatchObject({ state: "reading", progress: 0.4 });
    expect(queries.getQueryData<Take>(["take", "a"])).toMatchObject({ stage: "watching", progress: 0.4 });
    expect(stale(queries, ["today"])).toBe(false);
  });

  it("looks up how one teaches where somebody else changed it, and not over an own answer that is on its way", async () => {
    const queries = pages();
    queries.setQueryData(["method"], { answers: {} });
    const own = queries.getMutationCache().build(queries, { mutationKey: TEACH, mutationFn: () => new Promise(() => {}) });
    void own.execute(undefined);
    hearing(queries)({ kind: "rules" });
    expect(stale(queries, ["method"])).toBe(false);
    queries.getMutationCache().clear();
    hearing(queries)({ kind: "rules" });
    expect(stale(queries, ["method"])).toBe(true);
  });

  it("does not put a tap back that is on its way, and sees one that another screen made", () => {
    const queries = pages();
    const news = { kind: "take", id: "a", state: "read", stage: "read", progress: 1, report_version: 1 } as const;
    const own = queries.getMutationCache().build(queries, { mutationKey: ["ticks", "a"], mutationFn: () => new Promise(() => {}) });
    void own.execute(undefined);
    hearing(queries)(news);
    expect([stale(queries, ["ticks", "a"]), stale(queries, ["take", "a"])]).toEqual([false, true]);
    queries.getMutationCache().clear();
    hearing(queries)(news);
    expect(stale(queries, ["ticks", "a"])).toBe(true);
  });

  it("looks up what was said of a take that is just being read again", () => {
    const queries = pages();
    hearing(queries)({ kind: "said", id: "a" });
    const seen = [["today"], ["take", "a"], ["overrules", "a"], ["ticks", "a"]];
    expect(seen.map((key) => stale(queries, key))).toEqual([true, true, true, true]);
  });

  it("looks up anew what is read, and a take that nobody listed yet", () => {
    const read = pages();
    hearing(read)({ kind: "take", id: "a", state: "read", stage: "read", progress: 1, report_version: 1 });
    const seen = [["today"], ["take", "a"], ["drawings", "a"], ["overrules", "a"], ["ticks", "a"], ["cue", "a", "axis_level", ""]];
    for (const key of [...seen, ["takes-of", 3], ["results", 3]]) expect([key, stale(read, key)]).toEqual([key, true]);
    expect(stale(read, ["cards"])).toBe(false);
    const fresh = pages();
    hearing(fresh)({ kind: "take", id: "b", state: "queued", stage: "waiting", progress: 0, report_version: 0 });
    expect(stale(fresh, ["today"])).toBe(true);
  });

  it("looks up everything after the line was lost, the lesson and the class alone when a chair changed", () => {
    const lost = pages();
    hearing(lost)({ kind: "all" });
    expect([stale(lost, ["today"]), stale(lost, ["take", "a"])]).toEqual([true, true]);
    const moved = pages();
    hearing(moved)({ kind: "lesson" });
    expect([stale(moved, ["today"]), stale(moved, ["class"]), stale(moved, ["take", "a"])]).toEqual([true, true, false]);
    expect([stale(moved, ["results", 3]), stale(moved, ["cards"])]).toEqual([true, false]); // who is exempt from what stands on the record
    const ladder = pages();
    hearing(ladder)({ kind: "cards" });
    expect([stale(ladder, ["cards"]), stale(ladder, ["today"])]).toEqual([true, false]);
    const named = pages();
    hearing(named)({ kind: "people" });
    expect([stale(named, ["me"]), stale(named, ["today"])]).toEqual([true, true]); // another clock: what is due today goes by it
  });

  it("asks once for a take that is not on Today, and not for every step of its reading", () => {
    const queries = pages();
    const hear = hearing(queries);
    const step = (progress: number) => hear({ kind: "take", id: "old", state: "reading", stage: "watching", progress, report_version: 2 });
    step(0.1);
    expect(stale(queries, ["today"])).toBe(true);
    queries.setQueryData(["today"], (today: unknown) => today); // looked up: it is still not there
    step(0.2);
    expect(stale(queries, ["today"])).toBe(false);
  });

  it("lets what is on its way arrive, however often there is news, and looks up once more after it", async () => {
    const queries = pages();
    const answers: ((value: number) => void)[] = [];
    const page = new QueryObserver(queries, { queryKey: ["bench"], queryFn: () => new Promise<number>((come) => answers.push(come)) });
    const leave = page.subscribe(() => undefined);
    const hear = hearing(queries);
    for (let news = 0; news < 5; news++) hear({ kind: "care" });
    expect(answers.length).toBe(1);
    answers[0]!(1);
    await vi.waitFor(() => expect(answers.length).toBe(2));
    expect(page.getCurrentResult().data).toBe(1);
    hear({ kind: "care" });
    answers[1]!(2);
    await vi.waitFor(() => expect(page.getCurrentResult().data).toBe(2));
    await vi.waitFor(() => expect(answers.length).toBe(3));
    leave();
  });

  it("does not ask for a take that is gone", () => {
    const queries = pages();
    hearing(queries)({ kind: "take", id: "a", state: "gone", stage: "", progress: 0, report_version: 0 });
    expect([stale(queries, ["today"]), stale(queries, ["take", "a"])]).toEqual([true, false]);
  });
});

describe("the line", () => {
  class Line {
    readyState = 1;
    onerror: ((event: Event) => void) | null = null;
    close = () => void (this.readyState = 2);
    breaks(readyState: number) {
      this.readyState = readyState;
      this.onerror?.(new Event("error"));
    }
  }
  const lines = () => {
    const opened: Line[] = [];
    return { opened, open: () => opened[opened.push(new Line()) - 1]! };
  };

  it("is opened again where it was refused, and left to the browser where it broke", () => {
    vi.useFakeTimers();
    const { opened, open } = lines();
    const close = held(open, null);
    opened[0]!.breaks(0); // the browser is at it
    vi.advanceTimersByTime(10_000);
    expect(opened).toHaveLength(1);
    opened[0]!.breaks(2);
    vi.advanceTimersByTime(4_000);
    expect(opened).toHaveLength(2);
    opened[1]!.breaks(2);
    close(); // while it waits for the next
    vi.advanceTimersByTime(10_000);
    expect(opened).toHaveLength(2);
    vi.useRealTimers();
  });

  it("that was opened with the page is kept, also where it is refused later on, and not one that was refused before", () => {
    vi.useFakeTimers();
    const { opened, open } = lines();
    const early = new Line();
    const close = held(open, early);
    expect(opened).toHaveLength(0);
    early.breaks(2); // nobody was signed in when it was asked for
    vi.advanceTimersByTime(4_000);
    expect(opened).toHaveLength(1);
    close();
    expect(opened[0]!.readyState).toBe(2);
    held(open, early)();
    expect(opened).toHaveLength(2);
    vi.useRealTimers();
  });
});
