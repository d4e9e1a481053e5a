import { useQueries, useQuery } from "@tanstack/react-query";

import { body, client, type Take } from "./client";

/** What stands before some takes that were read: earlier days of the same check, by take. */
export function usePast(takes: readonly Pick<Take, "id" | "state" | "headline">[], on = true) {
  const read = takes.filter((one) => one.state === "read").slice(0, MOST_ASKED);
  const key = read.map((one) => `${one.id}:${one.headline?.report_version ?? 0}`).join();
  return useQuery({
    queryKey: ["past", key],
    enabled: on && read.length > 0,
    placeholderData: (before) => before, // what is known of the others stays while one more comes in
    queryFn: async () => body(await client.GET("/api/past", { params: { query: { takes: read.map((one) => one.id).join() } } })).takes,
  });
}
const MOST_ASKED = 60;

/** The same of several takes at once, in their order; undefined where one was not read, or is on its way. */
export const useReports = (takes: Pick<Take, "id" | "headline">[]) =>
  useQueries({
    queries: takes.map(({ id, headline }) => ({
      queryKey: ["report", id, headline?.report_version],
      enabled: headline !== null,
      queryFn: async () => body(await client.GET("/api/takes/{take_id}/report", { params: { path: { take_id: id } } })),
      staleTime: Infinity,
    })),
    combine: (found) => found.map(({ data }) => data),
  });

/** A student's verdicts, all of them, the oldest first. */
export const useResults = (student_id: number) =>
  useQuery({
    queryKey: ["results", student_id],
    queryFn: async () => body(await client.GET("/api/students/{student_id}/results", { params: { path: { student_id } } })),
  });
