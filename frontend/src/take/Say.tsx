import { useState } from "react";
import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Report, Take } from "../api/client";
import { useCueRecord } from "../api/said";
import { useKeys } from "../design/keys";
import { PHONE } from "../design/sizes";
import { colour } from "../design/tokens";
import { feltWords } from "../film/felt";
import { footWords } from "../shared/words";
import { CueSaid } from "./CueSaid";
import { Help } from "./Help";
import { SinceFirst } from "./SinceFirst";
import { PlayerChoice } from "./PlayerChoice";

const Cue = styled.div`
  .label {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 16px;
    color: ${colour("soft")};
    font-size: 15px;
    b {
      font-weight: 650;
    }
  }
  .text {
    font-size: 27px;
    font-weight: 750;
    line-height: 1.15;
    margin-top: 1px;
    text-wrap: balance;
  }
  .quiet {
    color: ${colour("soft")};
    font-size: 15px;
    margin-top: 3px;
    b {
      color: ${colour("ink")};
      font-weight: 650;
    }
  }
  @media ${PHONE} {
    display: flex;
    flex-direction: column;
    > * {
      order: 2;
    }
    > .text {
      order: 0;
    }
    > .label {
      display: contents;
    }
    .label > :first-child {
      order: -1;
    }
    .label > * {
      order: 1; /* what it is for stands below the sentence */
    }
  }
`;
const Beside = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 2px 18px;
  p > span + span {
    margin-left: 16px;
  }
  > :first-child:not(p) {
    margin-top: 5px; /* nothing but the button stands there: clear of the sentence above */
  }
  @media ${PHONE} {
    > p {
      flex-basis: 100%; /* the buttons stay beside each other */
    }
  }
`;
const Other = styled(Button)`
  margin-left: 14px;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  @media ${PHONE} {
    min-height: 48px;
  }
`;
/** Why the breath is not readable, or nothing of it could be judged, in a sentence; nothing where it was. */
export function stopOf(report: Report): string {
  if (report.readable_for.breath) return report.cue ? "" : (report.verdicts.find(({ state }) => state === "unreadable")?.why ?? "");
  return report.reasons.find(({ check }) => check === "breath" || check === "all")?.message ?? "";
}

/** The one sentence to say, what it is for, and how the breath was; or why there is none and what to do. */
export function Say({ take, report }: { take: Take; report: Report }) {
  const stop = stopOf(report);
  const spoken = spokenOf(take, report);
  const cue = spoken?.text;
  const helped = helpedOf(take, report);
  const pattern = stop || take.check.kind === "hold" ? "" : report.breathed; // how the breath was is not what a hold asks
  const ways = useWays(take, helped);
  const foot = footWords(report);
  const felt = feltWords(take.check.asks, take.felt);
  return (
    <Cue>
      <p className="label">
        <span>
          <b>{labelOf(report, cue ? "" : stop)}</b>
          {cue && ways.other && <Other onPress={ways.other}>other words</Other>}
        </span>
        {cue && <span>{whatFor(report, spoken)}</span>}
      </p>
      <p className="text">{cue === undefined ? stop : (ways.text ?? cue)}</p>
      <Beside>
        {(pattern || felt || foot) && (
          <p className="quiet">
            <How name="guess" words={felt} />
            <How name="reading" words={pattern} />
            <How name="foot" words={foot} />
          </p>
        )}
        {helped && <Help take={take} cue={helped} />}
        {helped && <CueSaid take={take} cue={helped} way={ways.way} />}
        <SinceFirst take={take} />
      </Beside>
      {report.reasons
        .filter(({ check }) => cue || !stop || check === "posture")
        .map((reason) => (
          <p key={reason.code} className="quiet">
            {reason.message}
          </p>
        ))}
      <PlayerChoice take={take} report={report} />
    </Cue>
  );
}

/** One thing that was felt or seen, in words; nothing where it was not. */
function How({ name, words }: { name: string; words: string | null | undefined }) {
  return words ? (
    <span>
      {name} <b>{words}</b>
    </span>
  ) : null;
}

function labelOf(report: Report, stop: string): string {
  if (!stop) return "Say this, then try again";
  if (report.readable_for.breath) return "Nothing of the breath could be judged";
  return report.readable ? "The breath is not readable here" : "Not readable";
}

/** The cue as the report has it, or as the teacher's own word on its verdicts leaves it. */
function cueOf({ headline }: Take, report: Report): Report["cue"] {
  if (!headline || headline.cue_criterion === (report.cue?.criterion ?? "")) return report.cue;
  return headline.cue ? { criterion: headline.cue_criterion, side: headline.cue_side, text: headline.cue } : null;
}

/** The cue that is said; a hold is spoken of, however little of the breath is seen. */
function spokenOf(take: Take, report: Report): Report["cue"] {
  const cue = cueOf(take, report);
  return stopOf(report) && cue?.criterion === "all" ? null : cue;
}

/** The cue where it is for a fault, with which something helps. */
export function helpedOf(take: Take, report: Report): Report["cue"] {
  const cue = spokenOf(take, report);
  return cue?.criterion === "all" ? null : cue;
}

/** The cue in the words that helped this student before, else in the usual ones; and the next of them. */
function useWays(take: Take, cue: Report["cue"]) {
  const found = useCueRecord(take.id, cue).data;
  const [turned, setTurned] = useState(0);
  const count = found?.ways.length ?? 0;
  const way = count ? (found!.first + (found!.said ? 0 : turned)) % count : 0; // what was said stays as it was said
  const other = count > 1 && !found!.said ? () => setTurned(turned + 1) : null;
  useKeys("Take, words", [{ key: "o", does: "the same in other words", run: () => other?.(), off: !other }]);
  return { way, text: found?.ways[way], other };
}

/** The fault a cue is for, and in how many breaths it is. */
function whatFor(report: Report, cue: Report["cue"]): string {
  const verdict = report.verdicts.find(({ criterion }) => criterion === cue?.criterion);
  if (!verdict?.line) return "";
  const faults = verdict.marks.filter((mark) => mark.outside).length;
  return verdict.counted_breaths ? `${verdict.line}, in ${faults} of ${verdict.counted_breaths} breaths` : verdict.line;
}
