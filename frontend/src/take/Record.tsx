import styled from "styled-components";

import type { Take } from "../api/client";
import { usePast } from "../api/past";
import { useRepetitions } from "../api/said";
import { EarlierDays } from "../shared/Earlier";
import { pastWords } from "../shared/past";
import { repeatWords } from "./repetitions";

const Line = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  font-size: 15px;
  > span {
    margin-left: 0; /* on a line of its own the days begin where it does */
  }
`;

/** The record behind a reading in one line: earlier days of the same check, each leading to its take, and how often the card was done correctly so far. */
export function Record({ take }: { take: Take }) {
  const past = usePast([take]).data?.[take.id];
  const done = useRepetitions(take.id, take.headline?.report_version).data;
  const words = [past && pastWords(past), done && repeatWords(done)].filter(Boolean).join("; ");
  if (!words && !past?.marks.length) return null;
  return (
    <Line data-testid="record">
      {words}
      {past && <EarlierDays marks={past.marks} led />}
    </Line>
  );
}
