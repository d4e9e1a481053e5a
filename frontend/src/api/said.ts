import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { body, client, type Examples, type Fault, type State, type Ticks, TAP } from "./client";

/** A fault as it is asked for. */
export const faultOf = ({ criterion, side }: Fault) => ({ criterion: criterion as Examples["criterion"], ...(side ? { side } : {}) });

/** Which stored takes another way to teach would change. */
export const useWouldChange = () =>
  useQuery({ queryKey: ["method", "preview"], queryFn: async () => body(await client.GET("/api/rules/method/preview")) });

/** What the teacher says instead of a take's verdicts. */
export const useOverrules = (take_id: string) =>
  useQuery({
    queryKey: ["overrules", take_id],
    queryFn: async () => body(await client.GET("/api/takes/{take_id}/overrules", { params: { path: { take_id } } })),
  });

/** Say otherwise than a verdict, or take that back (no state). */
export function useOverrule(take_id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (said: { criterion: string; state: State | null; reason: string }) =>
      body(await client.PUT("/api/takes/{take_id}/overrule", { params: { path: { take_id } }, body: { ...said, breath: null }, ...TAP })),
    onSettled: () => {
      void queries.invalidateQueries({ queryKey: ["repetitions"] });
      return queries.invalidateQueries({ queryKey: ["overrules", take_id] });
    },
  });
}

/** Whether a cue was said after a take, and what came after such faults. */
export const useCueRecord = (take_id: string, cue: Fault | null) =>
  useQuery({
    queryKey: ["cue", take_id, cue?.criterion, cue?.side ?? ""],
    enabled: cue !== null,
    queryFn: async () => body(await client.GET("/api/takes/{take_id}/cue", { params: { path: { take_id }, query: faultOf(cue!) } })),
  });

/** How often a take's card was done correctly up to it. */
export const useRepetitions = (take_id: string, version: number | undefined) =>
  useQuery({
    queryKey: ["repetitions", take_id, version],
    enabled: version !== undefined,
    queryFn: async () => body(await client.GET("/api/takes/{take_id}/repetitions", { params: { path: { take_id } } })),
  });

/** What has sunk since the first take of the same sitting. */
export const useSinceFirst = (take_id: string, version: number | undefined) =>
  useQuery({
    queryKey: ["since", take_id, version],
    enabled: version !== undefined,
    queryFn: async () => body(await client.GET("/api/takes/{take_id}/since", { params: { path: { take_id } } })),
  });

/** Put on record that a cue was said. */
export function useCueSaid(take_id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ way, ...cue }: Fault & { way: number }) =>
      body(
        await client.POST("/api/takes/{take_id}/cue", {
          params: { path: { take_id } },
          body: { side: null, ...faultOf(cue), way },
          ...TAP,
        }),
      ),
    onSettled: () => queries.invalidateQueries({ queryKey: ["cue"] }),
  });
}

/** What no camera sees of a take, and what was ticked. */
export const useTicks = (take_id: string) =>
  useQuery({
    queryKey: ["ticks", take_id],
    queryFn: async () => body(await client.GET("/api/takes/{take_id}/ticks", { params: { path: { take_id } } })),
  });

/** Tick one item; the page shows it at once, and as it is kept once the server has answered. */
export function useTick(take_id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationKey: ["ticks", take_id],
    scope: { id: "ticks" }, // one after the other: the last tap is the last that is kept
    mutationFn: async (tick: { item: string; state: Ticks["items"][number]["state"] }) =>
      body(await client.PUT("/api/takes/{take_id}/ticks", { params: { path: { take_id } }, body: tick, ...TAP })),
    onMutate: async ({ item, state }) => {
      await queries.cancelQueries({ queryKey: ["ticks", take_id] }); // an answer on its way knows nothing of this tap
      queries.setQueryData(
        ["ticks", take_id],
        (known: Ticks | undefined) => known && { items: known.items.map((one) => (one.key === item ? { ...one, state } : one)) },
      );
    },
    onSettled: () => {
      if (queries.isMutating({ mutationKey: ["ticks", take_id] }) === 1) return queries.invalidateQueries({ queryKey: ["ticks", take_id] });
    },
  });
}

/** Takes to sort for a line by example. */
export const useExamples = (criterion: Examples["criterion"], skip: number) =>
  useQuery({
    queryKey: ["method", "examples", criterion, skip],
    queryFn: async () => body(await client.GET("/api/rules/lines", { params: { query: { criterion, skip } } })),
  });

/** The line that agrees best with what was sorted. */
export const useProposed = (shown: Examples | undefined, sorted: Record<string, boolean>, enabled: boolean) =>
  useQuery({
    queryKey: ["method", "line", shown?.criterion, sorted],
    enabled: enabled && shown !== undefined,
    queryFn: async () => {
      const examples = shown!.examples.map(({ take_id, value }) => ({ take_id, value, fine: sorted[take_id]! }));
      return body(await client.POST("/api/rules/lines", { body: { criterion: shown!.criterion, examples } }));
    },
  });

/** Draw a line there for the programme. */
export function useUseLine() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (line: { criterion: Examples["criterion"]; value: number }) =>
      body(await client.PUT("/api/rules/lines", { body: line })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["method"] }),
  });
}

/** Who changed the rules, and when. */
export const useRuleChanges = (enabled: boolean) =>
  useQuery({ queryKey: ["method", "changes"], enabled, queryFn: async () => body(await client.GET("/api/rules/lines/changes")) });

/** Who left what out for a student, or took it in again, and when. */
export const useExemptChanges = (student_id: number) =>
  useQuery({
    queryKey: ["class", "exempt", student_id],
    queryFn: async () => body(await client.GET("/api/students/{student_id}/exempt", { params: { path: { student_id } } })).changes,
  });
