import { useState } from "react";
import { Disclosure, DisclosurePanel, Button, Heading } from "react-aria-components";
import styled from "styled-components";

import type { Verdict } from "../api/client";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { StateMark, STATE_WORDS, type State } from "../design/StateMark";
import { ValueScale } from "../design/ValueScale";
import { colour } from "../design/tokens";
import { inFront } from "./inFront";

const List = styled.div`
  border-top: 1px solid ${colour("ink")};
  margin-top: 10px;
`;
const Row = styled(Button)`
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) 46px 136px 128px minmax(86px, 0.8fr);
  align-items: center;
  gap: 6px;
  width: 100%;
  min-height: 31px;
  padding: 0 2px;
  border: 0;
  border-bottom: 1px solid ${colour("hair")};
  background: none;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  &[data-hovered] {
    background: ${colour("wash")};
  }
  @media (max-width: 620px) {
    grid-template-columns: 26px minmax(0, 1fr) auto auto auto;
    > svg:last-of-type:not(:first-child) {
      display: none;
    }
  }
  .title {
    font-weight: 650;
  }
  .value b {
    font-size: 18px;
    font-weight: 700;
  }
  .value {
    color: ${colour("soft")};
    font-size: 14px;
    b {
      color: ${colour("ink")};
    }
  }
  .counted {
    white-space: nowrap;
  }
  .word {
    text-align: right;
    font-weight: 650;
  }
  .word.steady {
    color: ${colour("steady")};
  }
  .word.watch {
    color: ${colour("watch")};
  }
  .word.work {
    color: ${colour("work")};
  }
`;
const Why = styled(DisclosurePanel)`
  padding: 0 2px 0 32px;
  font-size: 15px;
  color: ${colour("soft")};
  overflow: hidden;
  &[data-expanded] {
    padding-top: 7px;
    padding-bottom: 9px;
    border-bottom: 1px solid ${colour("hair")};
  }
  div {
    padding-block: 1px;
  }
`;
const Withheld = styled.p`
  display: flex;
  gap: 8px;
  padding: 9px 2px;
  color: ${colour("unreadable")};
  font-weight: 650;
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
const Rest = styled.div`
  padding-top: 10px;
`;
const Plain = styled(Heading)`
  font: inherit;
  margin: 0;
`;

type Props = { verdicts: Verdict[]; said: string; onEvidence: (verdict: Verdict) => void };

/** Verdicts on their scales, four in front and the rest one tap away; opening one says why and goes to its evidence in the clip. */
export function Verdicts({ verdicts, said, onEvidence }: Props) {
  const [all, setAll] = useState(false);
  const readable = verdicts.filter((v) => v.state !== "unreadable");
  const withheld = verdicts.filter((v) => v.state === "unreadable");
  const elsewhere = withheld.filter((v) => v.reason !== "said_once");
  const more = verdicts.length > inFront(verdicts).length + elsewhere.length;
  useKeys("Take, verdicts", [{ key: "a", does: "all verdicts, or the four in front", run: () => setAll(!all), off: !more }]);
  return (
    <List role="group" aria-label="Verdicts">
      {(all ? readable : inFront(verdicts)).map((verdict) => (
        <One key={verdict.criterion} verdict={verdict} onEvidence={onEvidence} />
      ))}
      <Unreadable verdicts={all ? withheld : elsewhere} said={said} />
      {more && (
        <Rest>
          <Action letter="A" onPress={() => setAll(!all)}>
            {all ? "Only the four" : `All ${verdicts.length}`}
          </Action>
        </Rest>
      )}
    </List>
  );
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
            not readable here:{" "}
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

function One({ verdict, onEvidence }: { verdict: Verdict; onEvidence: (verdict: Verdict) => void }) {
  const { state } = verdict;
  return (
    <Disclosure onExpandedChange={(open) => open && onEvidence(verdict)}>
      <Plain level={2}>
        <Row slot="trigger" data-testid={`verdict-${verdict.criterion}`}>
          <StateMark state={state} />
          <span className="title">{verdict.title}</span>
          <Counted verdict={verdict} />
          <Measured verdict={verdict} state={state} />
          <span className={`word ${state}`}>{verdict.words}</span>
        </Row>
      </Plain>
      <Why>
        <div>{verdict.why}</div>
        {verdict.threshold && <div>{limitsWords(verdict)}</div>}
        {verdict.cue && <div>Say: {verdict.cue}</div>}
      </Why>
    </Disclosure>
  );
}

/** How many of the counted breaths are steady: what the verdict was counted from. */
function Counted({ verdict }: { verdict: Verdict }) {
  const { steady_breaths: steady, counted_breaths: counted } = verdict;
  if (steady === null || counted === null) return <span />;
  return (
    <span className="counted">
      {steady} of {counted}
      <span className="unseen"> breaths steady</span>
    </span>
  );
}

function Measured({ verdict, state }: { verdict: Verdict; state: State }) {
  if (verdict.value === null || verdict.uncertainty === null) return null;
  const limits = [...new Set(Object.values(verdict.threshold ?? {}).map(Number))];
  return (
    <>
      <span className="value">
        <b>{digits(verdict, verdict.value)}</b> {unitWords(verdict)}
      </span>
      <ValueScale
        value={verdict.value}
        uncertainty={verdict.uncertainty}
        limits={limits}
        state={state}
        label={`${digits(verdict, verdict.value)} ${unitWords(verdict)}, give or take ${digits(verdict, verdict.uncertainty)}: ${STATE_WORDS[state]}`}
      />
    </>
  );
}

const SHARES = new Set(["abdomen_leads", "even_intake", "even_exhale"]);
const digits = (verdict: Verdict, value: number) => {
  const said = SHARES.has(verdict.criterion) ? (100 * value).toFixed(0) : value.toFixed(1);
  return said.replace(/^-(0(\.0)?)$/, "$1"); // no minus before nothing
};
const unitWords = (verdict: Verdict) => {
  if (verdict.criterion === "abdomen_leads") return "% from the belly";
  if (verdict.criterion === "even_intake" || verdict.criterion === "even_exhale") return "% off even";
  if (verdict.unit === "deg") return "°";
  return verdict.unit;
};

function limitsWords(verdict: Verdict): string {
  const t = verdict.threshold as Record<string, number>;
  const n = (key: string) => (t[key] === undefined ? null : digits(verdict, t[key]!));
  const steady = [n("steady_low") && `from ${n("steady_low")}`, n("steady_high") && `up to ${n("steady_high")}`].filter(Boolean).join(" ");
  const work = [n("work_low") && `below ${n("work_low")}`, n("work_high") && `above ${n("work_high")}`].filter(Boolean).join(" or ");
  return `Steady ${steady}; work on this ${work}; measured to ± ${digits(verdict, verdict.uncertainty ?? 0)}.`;
}
