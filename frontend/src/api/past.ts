import { useQuery } from "@tanstack/react-query";

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
