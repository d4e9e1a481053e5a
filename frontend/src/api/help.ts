import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { body, client, type Fault, TAP } from "./client";
import { faultOf } from "./said";

/** What helps with a fault of a take: the equipment first, then one drill. */
export const useHelp = (take_id: string, fault: Fault | null) =>
  useQuery({
    queryKey: ["help", take_id, fault?.criterion, fault?.side ?? ""],
    enabled: fault !== null,
    queryFn: async () => body(await client.GET("/api/takes/{take_id}/help", { params: { path: { take_id }, query: faultOf(fault!) } })),
  });

/** What fits a student: chair, stand, strap. */
export const useFits = (student_id: number, enabled: boolean) =>
  useQuery({
    queryKey: ["fits", student_id],
    enabled,
    queryFn: async () => body(await client.GET("/api/students/{student_id}/fits", { params: { path: { student_id } } })),
  });

/** Keep what fitted, or take it back (null). */
export function useKeepFit(student_id: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (fit: { key: string; value: number | null }) =>
      body(await client.PUT("/api/students/{student_id}/fits", { params: { path: { student_id } }, body: fit, ...TAP })),
    onSettled: () => {
      void queries.invalidateQueries({ queryKey: ["fits", student_id] });
      return queries.invalidateQueries({ queryKey: ["help"] });
    },
  });
}
