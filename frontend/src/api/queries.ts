import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import type { Purpose } from "../class/consent";
import {
  body,
  client,
  setCsrf,
  type ClassChanges,
  type ClassNow,
  type Edits,
  type FirstIn,
  type LessonIn,
  type Me,
  type Method,
  type MethodIn,
  type Sits,
  TAP,
} from "./client";

const remembered = (me: Me) => {
  setCsrf(me.csrf);
  return me;
};

export const useMe = () =>
  useQuery({ queryKey: ["me"], queryFn: async () => remembered(body(await client.GET("/api/me"))), staleTime: Infinity });

export function useSignIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (who: { login: string; password: string }) => remembered(body(await client.POST("/api/sign-in", { body: who }))),
    onSuccess: (me) => queries.setQueryData(["me"], me),
  });
}

export function useSignOut() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async () => remembered(body(await client.POST("/api/sign-out"))),
    onSuccess: (me) => {
      queries.setQueryData(["me"], me); // the door first, then everything that was behind it is forgotten
      queries.removeQueries({ predicate: (query) => query.queryKey[0] !== "me" });
    },
  });
}

export const useToday = () =>
  useQuery({
    queryKey: ["today"],
    queryFn: async () => body(await client.GET("/api/today")),
  });

export const useTake = (id: string) =>
  useQuery({
    queryKey: ["take", id],
    queryFn: async () =>
      body(
        await client.GET("/api/takes/{take_id}", {
          params: { path: { take_id: id } },
        }),
      ),
  });

export const useReport = (id: string, version: number | undefined) =>
  useQuery({
    queryKey: ["report", id, version],
    enabled: version !== undefined,
    queryFn: async () => body(await client.GET("/api/takes/{take_id}/report", { params: { path: { take_id: id } } })),
    staleTime: Infinity,
    placeholderData: (known, query) => (query?.queryKey[1] === id ? known : undefined), // a take judged anew stays on the screen meanwhile
  });

export function useSetAway() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ seatId, away }: { seatId: number; away: "" | "not_here" | "not_today" }) =>
      body(await client.PATCH("/api/seats/{seat_id}", { params: { path: { seat_id: seatId } }, body: { away }, ...TAP })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["today"] }),
  });
}

export const REORDER = ["reorder"];
export type Reordered = { lessonId: number; seatIds: number[] };

/** Other chairs first. It is under way until the line that was kept is there. */
export function useReorder() {
  const queries = useQueryClient();
  return useMutation({
    mutationKey: REORDER,
    scope: { id: "reorder" }, // one after the other: each holds the whole line
    mutationFn: async ({ lessonId, seatIds }: Reordered) =>
      body(await client.PUT("/api/lessons/{lesson_id}/order", { params: { path: { lesson_id: lessonId } }, body: { seat_ids: seatIds } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["today"] }),
  });
}

export function useReadAgain(id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async () => body(await client.POST("/api/takes/{take_id}/read-again", { params: { path: { take_id: id } } })),
    onSuccess: (take) => queries.setQueryData(["take", id], take),
  });
}

/** onGone: leaves the take's page, before what is shown there is taken from under it. */
export function useDelete(id: string, onGone: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async () => body(await client.DELETE("/api/takes/{take_id}", { params: { path: { take_id: id } } })),
    onSuccess: () => {
      onGone();
      queries.removeQueries({ queryKey: ["take", id] });
      return queries.invalidateQueries({ queryKey: ["today"] });
    },
  });
}

/** Deletes a student with everything that is held about them. */
export function useErase(id: number, onGone: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async () => body(await client.DELETE("/api/students/{student_id}", { params: { path: { student_id: id } } })),
    onSuccess: () => {
      onGone();
      return queries.invalidateQueries({ refetchType: "none" }); // the page that is left would ask for somebody who is gone
    },
  });
}

/** Changes a reading by hand; it is judged anew without its clip. */
export function useEdit(id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (edits: Edits) =>
      body(
        await client.PUT("/api/takes/{take_id}/edits", {
          params: { path: { take_id: id } },
          body: edits,
          ...TAP,
        }),
      ),
    scope: { id: `edit-${id}` }, // one after the other: each holds all that was put right
    onSuccess: (take) => queries.setQueryData(["take", id], take),
  });
}

export const useStudents = (enabled: boolean) =>
  useQuery({ queryKey: ["students"], enabled, queryFn: async () => body(await client.GET("/api/students")).students });

/** Gives a take to the student it is of. */
export function useMove(id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (studentId: number) =>
      body(await client.POST("/api/takes/{take_id}/move", { params: { path: { take_id: id } }, body: { student_id: studentId } })),
    onSuccess: (take) => {
      queries.setQueryData(["take", id], take);
      return queries.invalidateQueries({ queryKey: ["today"] });
    },
  });
}

export function useBegin() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (asked: FirstIn) => remembered(body(await client.POST("/api/begin", { body: asked }))),
    onSuccess: (me) => queries.setQueryData(["me"], me),
  });
}

export const useClass = () => useQuery({ queryKey: ["class"], queryFn: async () => body(await client.GET("/api/class")) });

/** What a class list would change; nothing is changed. */
export const useLookAtList = () =>
  useMutation({
    mutationFn: async (file: File) =>
      body(
        await client.POST("/api/class/list", {
          body: file as never,
          bodySerializer: (content) => content,
          headers: { "Content-Type": "text/csv" },
        }),
      ),
  });

const NO_CHANGES = { add: [], edit: [], instruments: [], leave: [], back: [], drop: [], sits: [], rows: [] };

export function useChangeClass() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (changes: ClassChanges) => body(await client.POST("/api/class/changes", { body: { ...NO_CHANGES, ...changes } })).ids,
    onSuccess: () => void queries.invalidateQueries(), // not waited for: what was done is said at once
  });
}

type Seated = Sits & { id: number; before: number[][] };

/** Puts a student on another chair: which one is asked when those before are done, by the rows as they are then. onSeated: told of each, however quickly they
follow; a callback of ``mutate`` is told of the last alone. */
export function useSeat(onSeated: (seated: Seated) => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ id, to }: { id: number; to: (rows: number[][]) => Sits | null }) => {
      const before = queries.getQueryData<ClassNow>(["class"])?.rows ?? [];
      const sits = to(before);
      if (!sits) return null;
      body(await client.POST("/api/class/changes", { body: { ...NO_CHANGES, sits: [{ id, sits }] } }));
      await queries.invalidateQueries({ queryKey: ["class"] });
      return { ...sits, id, before };
    },
    onSuccess: (seated) => seated && onSeated(seated),
    scope: { id: "seats" },
  });
}

export function useGiveConsents() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({
      ids,
      by,
      until,
      ...said
    }: {
      ids: number[];
      by: string;
      until: string;
      purposes: Purpose[];
      refused: Purpose[];
    }) => body(await client.POST("/api/class/consent", { body: { student_ids: ids, given_by: by, until_day: until, ...said } })),
    onSuccess: () => void queries.invalidateQueries(), // not waited for: what was done is said at once
  });
}

export function usePlanLesson() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (asked: LessonIn) => body(await client.POST("/api/class/lesson", { body: asked })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["today"] }),
  });
}

/** A family takes its consent back; tells how many clips were deleted. */
export function useWithdraw() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ id, purpose }: { id: number; purpose: Purpose }) =>
      body(await client.DELETE("/api/students/{student_id}/consent", { params: { path: { student_id: id }, query: { purpose } } })).clips,
    onSuccess: () => void queries.invalidateQueries(), // not waited for: what was done is said at once
  });
}

/** Puts students into the group of a name; tells its key. */
export function usePutInGroup() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ name, ids }: { name: string; ids: number[] }) =>
      body(await client.POST("/api/class/groups", { body: { name, student_ids: ids } })).id,
    onSuccess: () => queries.invalidateQueries({ queryKey: ["class"] }),
  });
}

/** Takes students out of a group. */
export function useTakeOutOfGroup() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ id, ids }: { id: number; ids: number[] }) =>
      body(await client.POST("/api/class/groups/{group_id}/out", { params: { path: { group_id: id } }, body: { student_ids: ids } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["class"] }),
  });
}

/** Every row that is judged; they change with a release only. */
export const useJudgedRows = () =>
  useQuery({ queryKey: ["rows"], staleTime: Infinity, queryFn: async () => body(await client.GET("/api/rules/rows")).rows });

/** What a student is exempt from, all of it. */
export function useChangeExempt() {
  const queries = useQueryClient();
  return useMutation({
    scope: { id: "exempt" }, // one after the other: each holds the whole list
    mutationFn: async ({ id, exempt }: { id: number; exempt: string[] }) =>
      body(await client.PUT("/api/students/{student_id}/exempt", { params: { path: { student_id: id } }, body: { exempt } })),
    onSuccess: () => queries.invalidateQueries(),
  });
}

export const useMethod = () => useQuery({ queryKey: ["method"], queryFn: async () => body(await client.GET("/api/rules/method")) });

export const TEACH = ["method"];

/** How the programme teaches; the page shows it at once, so that the next answer builds on it. */
export function useTeach() {
  const queries = useQueryClient();
  return useMutation({
    mutationKey: TEACH,
    scope: { id: "method" }, // one after the other: the last word is the last that is kept
    mutationFn: async (how: MethodIn) => body(await client.PUT("/api/rules/method", { body: how, ...TAP })),
    onMutate: async (how) => {
      await queries.cancelQueries({ queryKey: ["method"], exact: true }); // an answer on its way knows nothing of this one
      queries.setQueryData(
        ["method"],
        (known: Method | undefined) =>
          known && {
            ...known,
            answers: { ...known.answers, ...how.answers },
            strictness: how.strictness ?? known.strictness,
            order: how.order ?? known.order,
            asked: true,
          },
      );
    },
    onSettled: () => {
      if (queries.isMutating({ mutationKey: TEACH }) === 1) return queries.invalidateQueries({ queryKey: ["method"] });
    },
  });
}

/** Breaths that were counted without a clip: they count for the student's rest. */
export function useNoteCounted() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ seatId, ...run }: { seatId: number; breaths: number; lasted_s: number }) =>
      body(await client.PUT("/api/seats/{seat_id}/counted", { params: { path: { seat_id: seatId } }, body: run, ...TAP })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["today"] }),
  });
}

/** This chair is in front now, on this page and the phones that film for it. */
export const usePutInFront = () =>
  useMutation({
    scope: { id: "front" }, // one after the other: the last word said is the last one heard
    mutationFn: async ({ lessonId, seatId }: { lessonId: number; seatId: number }) =>
      body(await client.PUT("/api/lessons/{lesson_id}/front", { params: { path: { lesson_id: lessonId } }, body: { seat_id: seatId } })),
  });

export const usePair = () => useMutation({ mutationFn: async () => body(await client.POST("/api/phone")) });

export function useJoin() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (code: string) => remembered(body(await client.POST("/api/phone/join", { body: { code } }))),
    onSuccess: (me) => queries.setQueryData(["me"], me),
  });
}

export const usePeople = () => useQuery({ queryKey: ["people"], queryFn: async () => body(await client.GET("/api/people")).people });

export const useKeeping = () => useQuery({ queryKey: ["keeping"], queryFn: async () => body(await client.GET("/api/keeping")) });

/** Another time to keep clips and stills; what is older goes at once. */
export function useKeep() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (days: number | null) => body(await client.PUT("/api/keeping", { body: { days } })).gone,
    onSuccess: () => queries.invalidateQueries(),
  });
}

export const useInvite = () =>
  useMutation({
    mutationFn: async (who: { name: string; role: "owner" | "teacher" | "assistant" }) =>
      body(await client.POST("/api/invitations", { body: who })),
  });

export function useAcceptInvitation() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (who: { code: string; name: string; login: string; password: string }) =>
      remembered(body(await client.POST("/api/invitations/accept", { body: who }))),
    onSuccess: (me) => queries.setQueryData(["me"], me),
  });
}
