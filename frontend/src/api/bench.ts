import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { body, client, type BenchRules, type Outcome, type Passport, type Run, type Tap, TAP } from "./client";
import { hearClock } from "./clock";
import { putRun } from "./told";

/** Every section, and where it stands. */
export const useBench = () =>
  useQuery({
    queryKey: ["bench"],
    queryFn: async () => {
      const bench = body(await client.GET("/api/bench"));
      const run = bench.sections.flatMap((one) => one.runs)[0];
      if (run) hearClock(run.now);
      return bench;
    },
  });

/** An instrument's card; it changes with the programme's ways only. */
export const useCard = (card: string, instrument?: string) =>
  useQuery({
    queryKey: ["bench-card", card, instrument ?? ""],
    enabled: card !== "",
    staleTime: 600_000,
    queryFn: async () =>
      body(
        await client.GET("/api/bench/card", { params: { query: { card, ...(instrument ? { instrument: instrument as "flute" } : {}) } } }),
      ),
  });

/** Begin with a section, or go on where it was stopped. */
export function useBegin() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (what: { card: string; phase: Run["phase"] }) => body(await client.POST("/api/bench/runs", { body: what })),
    onSuccess: (run) => putRun(queries, run),
  });
}

/** One tap at the bench. */
export function useTap(run_id: number) {
  const queries = useQueryClient();
  return useMutation({
    scope: { id: `bench-${run_id}` }, // taps reach the server in the order they were made
    mutationFn: async (tap: Partial<Tap> & Pick<Tap, "does">) =>
      body(
        await client.POST("/api/bench/runs/{run_id}", {
          params: { path: { run_id } },
          body: { step: "", word: "", student: null, ...tap },
          ...TAP,
        }),
      ),
    onSuccess: (run) => putRun(queries, run),
  });
}

/** A student's way through the first notes. */
export const useFirsts = (student_id: number) =>
  useQuery({
    queryKey: ["firsts", student_id],
    queryFn: async () => body(await client.GET("/api/bench/firsts/{student_id}", { params: { path: { student_id } } })),
  });

/** Put on record what came out. */
export function useCameOut(student_id: number) {
  const queries = useQueryClient();
  return useMutation({
    scope: { id: "firsts" }, // taps in a row are kept in their order
    mutationFn: async (made: { rung: string; outcome: Outcome; length_s: number | null }) =>
      body(await client.POST("/api/bench/firsts/{student_id}", { params: { path: { student_id } }, body: made, ...TAP })),
    onSuccess: (firsts) => queries.setQueryData(["firsts", student_id], firsts),
  });
}

/** Say which check was the reason; or that the try was tapped by mistake. */
export function useTry(student_id: number) {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: ["firsts", student_id] });
  const fixed = useMutation({
    scope: { id: "firsts" },
    mutationFn: async ({ try_id, by }: { try_id: number; by: string }) =>
      body(await client.PUT("/api/bench/firsts/tries/{try_id}", { params: { path: { try_id } }, body: { by }, ...TAP })),
    onSettled: again,
  });
  const back = useMutation({
    scope: { id: "firsts" },
    mutationFn: async (try_id: number) =>
      body(await client.DELETE("/api/bench/firsts/tries/{try_id}", { params: { path: { try_id } }, ...TAP })),
    onSettled: again,
  });
  return { fixed, back };
}

/** A student's takes, the newest first. */
export const useTakesOf = (student_id: number) =>
  useQuery({
    queryKey: ["takes-of", student_id],
    queryFn: async () => body(await client.GET("/api/students/{student_id}/takes", { params: { path: { student_id } } })),
  });

/** A section's care. */
export const useCare = (card: string) =>
  useQuery({ queryKey: ["care", card], queryFn: async () => body(await client.GET("/api/bench/care", { params: { query: { card } } })) });

/** Log a task for the section, or take it back. */
export function useLogCare(card: string) {
  const queries = useQueryClient();
  const again = () =>
    Promise.all([queries.invalidateQueries({ queryKey: ["care"] }), queries.invalidateQueries({ queryKey: ["bench"] })]).then(
      () => undefined,
    );
  const log = useMutation({
    mutationFn: async (what: { task: string; but: number[] }) =>
      body(await client.POST("/api/bench/care", { body: { card, ...what }, ...TAP })),
    onSettled: again,
  });
  const undo = useMutation({
    mutationFn: async (undo: string) => body(await client.DELETE("/api/bench/care/logged/{undo}", { params: { path: { undo } }, ...TAP })),
    onSettled: again,
  });
  return { log, undo };
}

/** What is known of a student's instrument. */
export const usePassport = (student_id: number | null) =>
  useQuery({
    queryKey: ["care", "passport", student_id],
    enabled: student_id !== null,
    queryFn: async () =>
      body(await client.GET("/api/bench/care/passports/{student_id}", { params: { path: { student_id: student_id ?? 0 } } })),
  });

/** Change a passport, a value of one's own, the technician's list. */
export function useKeepInstrument(student_id: number) {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: ["care"] });
  const path = { student_id };
  const passport = useMutation({
    mutationFn: async ({ answers, shown, size, number, own }: Omit<Passport, "values">) =>
      body(await client.PUT("/api/bench/care/passports/{student_id}", { params: { path }, body: { answers, shown, size, number, own } })),
    onSettled: again,
  });
  const value = useMutation({
    mutationFn: async (what: { key: string; value: number | null; sure: boolean }) =>
      body(await client.PUT("/api/bench/care/values/{student_id}", { params: { path }, body: what })),
    onSettled: again,
  });
  const repair = useMutation({
    mutationFn: async (what: string) =>
      body(await client.POST("/api/bench/care/repairs/{student_id}", { params: { path }, body: { what } })),
    onSettled: again,
  });
  return { passport, value, repair };
}

/** Something on the technician's list was seen to. */
export function useRepaired() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ repair_id, done }: { repair_id: number; done: boolean }) =>
      body(await client.PUT("/api/bench/care/repaired/{repair_id}", { params: { path: { repair_id } }, body: { done } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["care"] }),
  });
}

/** Gates, ways and intervals of the programme's own. */
export const useBenchRules = () => useQuery({ queryKey: ["bench-rules"], queryFn: async () => body(await client.GET("/api/bench/rules")) });

/** Change them. */
export function useChangeBenchRules() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (rules: BenchRules) => body(await client.PUT("/api/bench/rules", { body: rules })),
    onSettled: () =>
      Promise.all(["bench-rules", "bench-card", "bench", "care"].map((key) => queries.invalidateQueries({ queryKey: [key] }))),
  });
}
