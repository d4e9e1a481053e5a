import { useState } from "react";
import styled from "styled-components";

import type { Report, Verdict } from "../api/client";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { PHONE } from "../design/sizes";
import { StateMark, STATE_WORDS, type State } from "../design/StateMark";
import { colour } from "../design/tokens";
import { inFront } from "./inFront";
import { ROW_COLUMNS, VerdictRow } from "./VerdictRow";

const List = styled.div`
  margin-top: 4px;
`;
const Heads = styled.div`
  ${ROW_COLUMNS}
  font-size: 13px;
  color: ${colour("soft")};
  padding-bottom: 2px;
  border-bottom: 1px solid ${colour("ink")};
  @media ${PHONE} {
    > * {
      display: none;
    }
    margin-top: 8px;
  }
`;
const Withheld = styled.p`
  display: flex;
  gap: 8px;
  padding: 7px 2px;
  color: ${colour("unreadable")};
  line-height: 1.25;
  b {
    font-weight: 650;
  }
  border-bottom: 1px solid ${colour("hair")};
  svg {
    flex: none;
    margin-top: 2px;
  }
  small {
    display: block;
    font-size: 14px;
    font-weight: 400;
    color: ${colour("soft")};
  }
`;
/** Neither mark, number nor scale: a row that only says that it is none. */
const Exempt = styled.p`
  ${ROW_COLUMNS}
  min-height: 35px;
  padding: 0 2px;
  color: ${colour("soft")};
  border-bottom: 1px solid ${colour("hair")};
  .why {
    grid-column: 3 / -1;
    text-align: right;
  }
`;
const Rest = styled.div`
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 6px 14px;
  padding-top: 8px;
  color: ${colour("soft")};
  font-size: 15px;
`;

type Props = {
  takeId: string;
  verdicts: Verdict[];
  exempt: Report["exempt"];
  breaths: number;
  chosen: number | null;
  said: string;
  onEvidence: (verdict: Verdict) => void;
};

/** Verdicts, four in front and the rest one tap away; opening one says why and goes to its evidence in the clip. */
export function Verdicts({ takeId, verdicts, exempt = [], breaths, chosen, said, onEvidence }: Props) {
  const [all, setAll] = useState(false);
  const readable = verdicts.filter((v) => v.state !== "unreadable");
  const withheld = verdicts.filter((v) => v.state === "unreadable");
  const elsewhere = withheld.filter((v) => v.reason !== "said_once");
  const front = inFront(verdicts);
  const rest = readable.filter((verdict) => !front.includes(verdict));
  const more = verdicts.length > front.length + elsewhere.length;
  useKeys("Take, verdicts", [{ key: "a", does: "all verdicts, or the four in front", run: () => setAll(!all), off: !more }]);
  return (
    <List role="group" aria-label="Verdicts">
      {front.some((verdict) => verdict.marks.length > 0) && (
        <Heads aria-hidden>
          <span />
          <span />
          <span>good breaths</span>
          <span />
          <span>{chosen === null ? "usual" : `breath ${chosen + 1}`}</span>
        </Heads>
      )}
      {(all ? readable : front).map((verdict) => (
        <VerdictRow key={verdict.criterion} takeId={takeId} verdict={verdict} breaths={breaths} chosen={chosen} onEvidence={onEvidence} />
      ))}
      <Unreadable verdicts={all ? withheld : elsewhere} said={said} />
      {exempt.map(({ criterion, title }) => (
        <Exempt key={criterion} data-testid={`exempt-${criterion}`}>
          <span />
          <span>{title}</span>
          <span className="why">not measured for this student</span>
        </Exempt>
      ))}
      {more && (
        <Rest>
          <Action letter="A" onPress={() => setAll(!all)}>
            {all ? "Only the four" : `All ${verdicts.length}`}
          </Action>
          {!all && rest.length > 0 && <span>{restWords(rest)}</span>}
        </Rest>
      )}
    </List>
  );
}

const SAID: readonly State[] = ["work", "watch", "steady"];

/** The verdicts behind the button, counted. */
function restWords(rest: Verdict[]): string {
  const counted = SAID.map((state) => [state, rest.filter((verdict) => verdict.state === state).length] as const).filter(([, n]) => n > 0);
  return `the other ${rest.length}: ${counted.map(([state, n]) => `${n === rest.length ? "all" : n} ${STATE_WORDS[state]}`).join(", ")}`;
}

/** What could not be read, each reason once; a reason that is said above already is not said again. */
function Unreadable({ verdicts, said }: { verdicts: Verdict[]; said: string }) {
  const reasons = [...new Set(verdicts.map((verdict) => verdict.why))];
  return (
    <div data-testid="unreadable">
      {reasons.map((why) => (
        <Withheld key={why}>
          <StateMark state="unreadable" />
          <span>
            <b>not readable here:</b>{" "}
            {verdicts
              .filter((v) => v.why === why)
              .map(titleOf)
              .join(", ")}
            {why !== said && <small>{why}</small>}
          </span>
        </Withheld>
      ))}
    </div>
  );
}

const titleOf = ({ title }: Verdict) => title.toLowerCase();
