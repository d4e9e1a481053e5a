import { useState, type ReactNode } from "react";
import styled from "styled-components";

import type { Report, Verdict } from "../api/client";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { PHONE } from "../design/sizes";
import { StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import { usePhone } from "../design/usePhone";
import { cut, IN_FRONT, inFront, NAMED, named, OF_HOLD, restWords } from "./inFront";
import { rowColumns, VerdictRow } from "./VerdictRow";

const List = styled.div`
  margin-top: 4px;
`;
const Heads = styled.div`
  ${rowColumns(true)}
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
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto;
  align-items: center;
  gap: 6px;
  min-height: 35px;
  padding: 0 2px;
  color: ${colour("soft")};
  border-bottom: 1px solid ${colour("hair")};
`;
const Rest = styled.div`
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 6px 14px;
  padding-top: 8px;
  color: ${colour("soft")};
  font-size: 15px;
  &:empty {
    display: none;
  }
`;

type Props = {
  takeId: string;
  verdicts: Verdict[];
  exempt: Report["exempt"];
  breaths: number;
  chosen: number | null;
  held: boolean;
  said: string;
  segments: Report["segments"];
  onEvidence: (verdict: Verdict) => void;
  onSeek: (t_s: number) => void;
  children?: ReactNode;
};

/** Verdicts, four in front and the rest one tap away; opening one says why and goes to its evidence in the clip. held: those of the hold in front, in words
 *  beside their names, for nothing is counted from breaths there. */
export function Verdicts({ takeId, verdicts, exempt = [], breaths, chosen, held, said, segments, onEvidence, onSeek, children }: Props) {
  const [all, setAll] = useState(false);
  const phone = usePhone();
  const readable = verdicts.filter((v) => v.state !== "unreadable");
  const withheld = verdicts.filter((v) => v.state === "unreadable");
  const elsewhere = withheld.filter((v) => v.reason !== "said_once" && !(held && v.area === "breath"));
  const front = inFront(verdicts, held, held && !phone ? OF_HOLD : IN_FRONT);
  const shown = all ? readable : front;
  const counted = !held && shown.some((verdict) => verdict.marks.length > 0); // else the word stands where the breaths would
  const rest = [...readable.filter((verdict) => !front.includes(verdict)), ...withheld.filter((verdict) => !elsewhere.includes(verdict))];
  const more = verdicts.length > front.length + elsewhere.length || cut(elsewhere);
  useKeys("Take, verdicts", [{ key: "a", does: "all verdicts, or those in front", run: () => setAll(!all), off: !more }]);
  return (
    <List role="group" aria-label="Verdicts">
      {counted && (
        <Heads aria-hidden>
          <span />
          <span />
          <span>good breaths</span>
          <span />
          <span>{chosen === null ? "usual" : `breath ${chosen + 1}`}</span>
        </Heads>
      )}
      {shown.map((verdict) => (
        <VerdictRow
          key={verdict.criterion}
          takeId={takeId}
          verdict={verdict}
          breaths={breaths}
          chosen={chosen}
          counted={counted}
          segments={segments}
          onEvidence={onEvidence}
          onSeek={onSeek}
        />
      ))}
      <Unreadable verdicts={all ? withheld : elsewhere} most={all ? withheld.length : NAMED} said={said} />
      {exempt.map(({ criterion, title }) => (
        <Exempt key={criterion} data-testid={`exempt-${criterion}`}>
          <span />
          <span>{title}</span>
          <span>not measured for this student</span>
        </Exempt>
      ))}
      <Rest>
        {more && (
          <Action letter="A" onPress={() => setAll(!all)}>
            {all ? "Only those in front" : `All ${verdicts.length}`}
          </Action>
        )}
        {children}
        {more && !all && rest.length > 0 && <span>{restWords(rest)}</span>}
      </Rest>
    </List>
  );
}

/** What could not be read, each reason once; a reason that is said above already is not said again. most: as many rows are named, the others counted. */
function Unreadable({ verdicts, most, said }: { verdicts: Verdict[]; most: number; said: string }) {
  const reasons = [...new Set(verdicts.map((verdict) => verdict.why))];
  return (
    <div data-testid="unreadable">
      {reasons.map((why) => (
        <Withheld key={why}>
          <StateMark state="unreadable" />
          <span>
            <b>not readable here:</b>{" "}
            {named(
              verdicts.filter((v) => v.why === why),
              most,
            )}
            {why !== said && <small>{why}</small>}
          </span>
        </Withheld>
      ))}
    </div>
  );
}
