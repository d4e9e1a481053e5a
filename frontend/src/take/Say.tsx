import styled from "styled-components";

import type { Report, Take } from "../api/client";
import { colour } from "../design/tokens";
import { PlayerChoice } from "./PlayerChoice";

const Cue = styled.div`
  .label {
    color: ${colour("soft")};
    font-weight: 650;
  }
  .text {
    font-size: 27px;
    font-weight: 750;
    line-height: 1.15;
    margin-top: 2px;
    text-wrap: balance;
  }
  .quiet {
    color: ${colour("soft")};
    font-size: 15px;
    margin-top: 4px;
  }
`;
/** Why the breath is not readable, in a sentence; nothing where it is. */
export function stopOf(report: Report): string {
  if (report.readable_for.breath) return "";
  return report.reasons.find(({ check }) => check === "breath" || check === "all")?.message ?? "";
}

/** The one sentence to say, or why there is none and what to do. */
export function Say({ take, report }: { take: Take; report: Report }) {
  const stop = stopOf(report);
  return (
    <Cue>
      <p className="label">{labelOf(report, stop)}</p>
      <p className="text">{stop || report.cue?.text}</p>
      {!stop &&
        report.reasons.map((reason) => (
          <p key={reason.code} className="quiet">
            {reason.message}
          </p>
        ))}
      <PlayerChoice take={take} report={report} />
    </Cue>
  );
}

function labelOf(report: Report, stop: string): string {
  if (!stop) return "Say this, then try again";
  return report.readable ? "The breath is not readable here" : "Not readable";
}
