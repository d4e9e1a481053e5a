import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Report, Take, Ticks } from "../api/client";
import { useTick, useTicks } from "../api/said";
import { Said } from "../design/Fields";
import { PHONE } from "../design/sizes";
import { StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import { Marks } from "./Marks";
import { closeUpsOf, showsBack, stillsOf } from "./closeUps";
import { canShow, Still } from "./Still";
import { lookedWords, markOf, nextState, shownOf, stateWords } from "./ticks";

const Part = styled.section`
  padding-top: 14px;
  header {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 4px 14px;
    padding-bottom: 8px;
    color: ${colour("soft")};
    h2 {
      display: inline;
      margin-right: 12px;
      font-size: 16px;
      font-weight: 700;
      color: ${colour("ink")};
    }
  }
`;
const STILL_PX: Record<number, number> = { 3: 158, 4: 140 };
const Beside = styled.div<{ $stills: number }>`
  display: grid;
  grid-template-columns: ${(p) => p.$stills > 0 && `repeat(${p.$stills}, ${STILL_PX[p.$stills] ?? 196}px)`} minmax(0, 1fr);
  gap: 12px 20px;
  align-items: start;
  @media (max-width: 1000px) {
    grid-template-columns: repeat(${(p) => Math.max(p.$stills, 1)}, 1fr);
    > ol {
      grid-column: 1 / -1;
    }
  }
  @media ${PHONE} {
    grid-template-columns: repeat(2, 1fr);
  }
`;
const Rows = styled.ol`
  list-style: none;
  border-top: 1px solid ${colour("ink")};
`;
const Row = styled(Button)`
  display: grid;
  grid-template-columns: 22px 24px minmax(0, 1fr) minmax(0, 1.8fr) 100px;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 36px;
  padding: 0 2px;
  border: 0;
  border-bottom: 1px solid ${colour("hair")};
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
  b {
    font-weight: 650;
  }
  small {
    font-size: 15px;
    color: ${colour("soft")};
  }
  .said {
    text-align: right;
    font-weight: 650;
  }
  .fine {
    color: ${colour("steady")};
  }
  .not_yet {
    color: ${colour("work")};
  }
  &[data-hovered] {
    background: ${colour("wash")};
  }
  @media ${PHONE} {
    grid-template-columns: 22px 24px minmax(0, 1fr) auto;
    min-height: 56px;
    small {
      grid-column: 3 / -1;
    }
    .said {
      grid-area: 1 / 4;
    }
  }
`;
const Open = styled.span`
  width: 15px;
  height: 15px;
  margin: 1px;
  border: 1.75px solid ${colour("ink")};
  border-radius: 50%;
`;
/** What no camera sees: where to look, large, and a list to tap: once is fine, twice is not yet. */
export function TickList({ take, report }: { take: Take; report: Report }) {
  const known = useTicks(take.id).data;
  const tick = useTick(take.id);
  const stills = stillsOf(report);
  const found = known && shownOf(known, { rest: stills.rest !== undefined, back: showsBack(report) });
  if (!found || found.items.length === 0) return null;
  const tap = ({ key, state }: Ticks["items"][number]) => tick.mutate({ item: key, state: nextState(state) });
  const closeUps = canShow(take) ? closeUpsOf(found.items, report) : [];
  return (
    <Part aria-labelledby="ticks">
      <header>
        <p>
          <h2 id="ticks">What no camera sees</h2>
          tap the ring or its row: once is fine, twice is not yet
        </p>
        <p>{lookedWords(found)}</p>
      </header>
      <Beside $stills={closeUps.length}>
        {closeUps.map(({ t_s, words, label, part, places }) => (
          <Still key={words} take={take} t_s={t_s} part={part} shape={1} clip={report.clip} words={words} label={label}>
            <Marks looked={places} onTap={tap} />
          </Still>
        ))}
        <Rows>
          {found.items.map((one, i) => (
            <li key={one.key}>
              <Row
                data-testid={`tick-${one.key}`}
                data-space-free
                aria-label={`${one.title}: ${one.fine}; ${stateWords(one.state)}`}
                onPress={() => tap(one)}
              >
                <span>{i + 1}</span>
                {one.state === null ? <Open /> : <StateMark state={markOf(one.state)} size={17} />}
                <b>{one.title}</b>
                <small>{one.state === "not_yet" ? `${one.fine}; not ${one.wrong}` : one.fine}</small>
                <span className={`said ${one.state ?? ""}`}>{stateWords(one.state)}</span>
              </Row>
            </li>
          ))}
        </Rows>
      </Beside>
      {tick.error && <Said role="alert">{tick.error.message}</Said>}
    </Part>
  );
}
