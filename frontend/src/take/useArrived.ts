import type { UseQueryResult } from "@tanstack/react-query";
import { useState } from "react";

import type { Report, Take } from "../api/client";
import { useHelp } from "../api/help";
import { usePast } from "../api/past";
import { useToday } from "../api/queries";
import { useCueRecord, useOverrules, useRepetitions, useSinceFirst, useTicks } from "../api/said";
import { helpedOf } from "./Say";

/** A query that has answered, failed, or is not asked now. */
const answered = ({ isFetched, failureCount, fetchStatus }: UseQueryResult) => isFetched || failureCount > 0 || fetchStatus !== "fetching";

/** Whether what stands over, beside and between a reading's verdicts has come as well: one after the other it would push them away from a finger. Once there, it stays. */
export function useArrived(id: string, take: Take | undefined, report: Report | undefined): boolean {
  const [shown, setShown] = useState("");
  const cue = take && report ? helpedOf(take, report) : null;
  const version = take?.headline?.report_version;
  const waited: UseQueryResult[] = [
    useOverrules(id),
    useTicks(id),
    useCueRecord(id, cue),
    useHelp(id, cue),
    useRepetitions(id, version),
    usePast(take ? [take] : []),
    useSinceFirst(id, version),
    useToday(),
  ];
  const arrived = report !== undefined && waited.every(answered);
  if (arrived && shown !== id) setShown(id);
  return arrived || shown === id;
}
