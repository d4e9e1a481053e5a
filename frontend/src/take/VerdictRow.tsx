import { Button, Disclosure, DisclosurePanel, Heading } from "react-aria-components";
import styled, { css } from "styled-components";

import type { Report, Verdict } from "../api/client";
import { useOverrules } from "../api/said";
import { BreathGlyph } from "../breathscore/BreathGlyph";
import { PHONE } from "../design/sizes";
import { StateMark, STATE_WORDS } from "../design/StateMark";
import { ValueScale } from "../design/ValueScale";
import { colour } from "../design/tokens";
import { BySegment } from "./BySegment";
import { Otherwise } from "./Otherwise";
import { digits, limitsWords, shown } from "../shared/valueWords";

const COUNTED = css`
  grid-template: "mark title breaths counted value scale word" / 24px minmax(0, 1fr) 110px 44px 118px 128px 92px;
  @media (max-width: 1150px) {
    grid-template: "mark title breaths counted value word" / 24px minmax(0, 1fr) 108px 44px 108px 92px;
  }
`;
const PLAIN = css`
  grid-template: "mark title word value scale" / 24px minmax(0, 1fr) 112px 128px 128px;
  @media (max-width: 1150px) {
    grid-template: "mark title word value" / 24px minmax(0, 1fr) 112px 124px;
  }
`;
/** The columns of a row: its breaths before its number, or its word where none are counted. */
export const rowColumns = (counted: boolean) => css`
  display: grid;
  ${counted ? COUNTED : PLAIN}
  align-items: center;
  gap: 6px;
  @media (max-width: 1150px) {
    .scale {
      display: none;
    }
  }
`;
const Row = styled(Button)<{ $counted: boolean }>`
  ${(p) => rowColumns(p.$counted)}
  width: 100%;
  min-height: 35px;
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
  .title {
    grid-area: title;
    font-weight: 650;
  }
  .breaths {
    display: flex;
  }
  .value {
    color: ${colour("soft")};
    grid-area: value;
    font-size: 14px;
    white-space: nowrap;
    b {
      font-size: 17px;
      font-weight: 700;
      color: ${colour("ink")};
    }
  }
  .word {
    grid-area: word;
    text-align: ${(p) => (p.$counted ? "right" : "left")};
    font-weight: 650;
    line-height: 1.1;
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
  .mark {
    grid-area: mark;
  }
  .breaths {
    grid-area: breaths;
  }
  .counted {
    grid-area: counted;
  }
  .scale {
    grid-area: scale;
  }
  @media ${PHONE} {
    grid-template: "mark title title word" "mark breaths counted value" / 24px 100px auto minmax(0, 1fr);
    gap: 0 10px;
    min-height: 62px;
    .title {
      font-size: 17px;
    }
    .value {
      text-align: right;
      white-space: normal;
    }
    .word {
      text-align: right;
    }
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
const Plain = styled(Heading)`
  font: inherit;
  margin: 0;
`;
const BREATHS_PX = 106;
const GLYPH_PX = 26;

type Props = {
  takeId: string;
  verdict: Verdict;
  breaths: number;
  chosen: number | null;
  counted: boolean;
  segments: Report["segments"];
  onEvidence: (verdict: Verdict) => void;
  onSeek: (t_s: number) => void;
};

/** One verdict: its mark, its breaths as wedges, the chosen one's number on its scale among the others, and the word; where none are counted, the
 *  word stands where the breaths would. */
export function VerdictRow({ takeId, verdict, breaths, chosen, counted, segments, onEvidence, onSeek }: Props) {
  const { state } = verdict;
  const mark = verdict.marks.find(({ breath }) => breath === chosen);
  return (
    <Disclosure onExpandedChange={(open) => open && onEvidence(verdict)}>
      <Plain level={2}>
        <Row slot="trigger" $counted={counted} data-testid={`verdict-${verdict.criterion}`} data-space-free>
          <span className="mark">
            <StateMark state={state} />
          </span>
          <span className="title">{verdict.title}</span>
          {counted && <span className="breaths">{verdict.marks.length > 0 && <Wedges verdict={verdict} breaths={breaths} />}</span>}
          {counted && <Counted verdict={verdict} />}
          <Measured verdict={verdict} mark={mark} />
          <Word takeId={takeId} verdict={verdict} />
        </Row>
      </Plain>
      <Why>
        <div>{verdict.why}</div>
        {verdict.threshold && <div>{limitsWords(verdict)}</div>}
        <BySegment verdict={verdict} segments={segments} onSeek={onSeek} />
        {verdict.cue && <div>Say: {verdict.cue}</div>}
        <Otherwise takeId={takeId} verdict={verdict} />
      </Why>
    </Disclosure>
  );
}

/** What is said in two or three words: the teacher's own word where there is one. */
function Word({ takeId, verdict }: { takeId: string; verdict: Verdict }) {
  const said = useOverrules(takeId).data?.overrules.find(({ criterion }) => criterion === verdict.criterion);
  if (!said) return <span className={`word ${verdict.state}`}>{verdict.words}</span>;
  return <span className={`word ${said.state}`}>you say {STATE_WORDS[said.state]}</span>;
}

function Wedges({ verdict, breaths }: { verdict: Verdict; breaths: number }) {
  const width = Math.min(GLYPH_PX, BREATHS_PX / Math.max(breaths, 1));
  return Array.from({ length: breaths }, (_, i) => {
    const mark = verdict.marks.find(({ breath }) => breath === i);
    return <BreathGlyph key={i} state={mark?.state ?? null} outside={mark?.outside ?? false} width={width} />;
  });
}

/** How many of the counted breaths are steady: what the verdict was counted from. */
function Counted({ verdict }: { verdict: Verdict }) {
  const { steady_breaths: steady, counted_breaths: counted } = verdict;
  if (steady === null || counted === null) return <span className="counted" />;
  return (
    <span className="counted">
      <b>{steady}</b> of {counted}
      <span className="unseen"> breaths steady</span>
    </span>
  );
}

function Measured({ verdict, mark }: { verdict: Verdict; mark: Verdict["marks"][number] | undefined }) {
  const value = mark?.value ?? verdict.value;
  const uncertainty = mark?.uncertainty ?? verdict.uncertainty;
  const state = mark?.state ?? verdict.state;
  if (value === null || uncertainty === null) return null;
  const { number, words } = shown(verdict, value);
  return (
    <>
      <span className="value">
        <b>{number}</b> {words}
      </span>
      <span className="scale">
        <ValueScale
          value={value}
          uncertainty={uncertainty}
          limits={[...new Set(Object.values(verdict.threshold ?? {}).map(Number))]}
          others={verdict.marks.filter((other) => other !== mark).map((other) => other.value)}
          state={state}
          label={`${number} ${words}, give or take ${digits(verdict, uncertainty)}: ${STATE_WORDS[state]}`}
        />
      </span>
    </>
  );
}
