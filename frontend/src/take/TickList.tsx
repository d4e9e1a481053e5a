import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Report, Take } from "../api/client";
import { useTick, useTicks } from "../api/said";
import { Said } from "../design/Fields";
import { PHONE } from "../design/sizes";
import { StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import { around, canShow, Still, type Ring } from "./Still";
import { lookedWords, markOf, nextState, numbersOf, shownOf, stateWords, type Near } from "./ticks";

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
const Beside = styled.div<{ $stills: number }>`
  display: grid;
  grid-template-columns: repeat(${(p) => p.$stills}, ${(p) => (p.$stills > 2 ? 158 : 196)}px) minmax(0, 1fr);
  gap: 12px 20px;
  align-items: start;
  @media (max-width: 1000px) {
    grid-template-columns: repeat(${(p) => p.$stills}, 1fr);
    > ol {
      grid-column: 1 / -1;
    }
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
const CLOSE_TRUNKS = 0.75; // of the picture around mouth or hand
const LIPS_TRUNKS = 0.12; // lips and fingertips are ahead of what the network calls mouth and hand

const APART_TRUNKS = 0.22; // hands nearer than that are ringed as one

type Place = [number, number];
type Seen = { left_hand_px: number[]; right_hand_px: number[] };

/** Between both hands. */
const middleOf = ({ left_hand_px: left, right_hand_px: right }: Seen) => [0, 1].map((i) => ((left[i] ?? 0) + (right[i] ?? 0)) / 2) as Place;

/** What no camera sees: where to look, large, and a list to tap: once is fine, twice is not yet. */
export function TickList({ take, report }: { take: Take; report: Report }) {
  const known = useTicks(take.id).data;
  const tick = useTick(take.id);
  const stills = report.hold?.hands?.stills ?? [];
  const still = stills.find(({ kind }) => kind === "playing") ?? stills.at(-1);
  const rest = stills.find(({ kind }) => kind === "rest");
  const found = known && shownOf(known, rest !== undefined);
  const trunk = report.scale?.trunk_px;
  if (!found || found.items.length === 0) return null;
  const ahead = Math.sign(report.player?.forward[0] ?? 0) * LIPS_TRUNKS * (trunk ?? 0);
  const near = ([x, y]: number[]) => around([(x ?? 0) + ahead, y ?? 0], CLOSE_TRUNKS * (trunk ?? 0), 1, report.clip);
  const between = still && middleOf(still);
  const ring = (place: number[], ...parts: Near[]): Ring[] => {
    const numbers = numbersOf(found.items, ...parts);
    return numbers ? [{ at: [(place[0] ?? 0) + ahead, place[1] ?? 0], numbers }] : [];
  };
  const hands = (): Ring[] => {
    if (!still || !between) return [];
    const [left, right] = [still.left_hand_px, still.right_hand_px];
    const apart = Math.hypot((left[0] ?? 0) - (right[0] ?? 0), (left[1] ?? 0) - (right[1] ?? 0));
    if (apart < APART_TRUNKS * (trunk ?? 0)) return ring(between, "left_hand", "right_hand"); // two rings would cover each other
    return [...ring(left, "left_hand"), ...ring(right, "right_hand")];
  };
  return (
    <Part aria-labelledby="ticks">
      <header>
        <p>
          <h2 id="ticks">What no camera sees</h2>
          look, then tap: once is fine, twice is not yet
        </p>
        <p>{lookedWords(found)}</p>
      </header>
      <Beside $stills={rest ? 3 : 2}>
        {still && trunk && canShow(take) && (
          <>
            <Still
              take={take}
              t_s={still.t_s}
              part={near(still.mouth_px)}
              shape={1}
              clip={report.clip}
              words="mouth"
              label="the mouth"
              rings={ring(still.mouth_px, "mouth")}
            />
            <Still
              take={take}
              t_s={still.t_s}
              part={near(between!)}
              shape={1}
              clip={report.clip}
              words="hands"
              label="the hands"
              rings={hands()}
            />
            {rest && (
              <Still
                take={take}
                t_s={rest.t_s}
                part={around(middleOf(rest), 2 * CLOSE_TRUNKS * trunk, 1, report.clip)}
                shape={1}
                clip={report.clip}
                words={`rest, ${numbersOf(found.items, "rest")}`}
                label="the instrument at rest"
              />
            )}
          </>
        )}
        <Rows>
          {found.items.map((one, i) => (
            <li key={one.key}>
              <Row
                data-testid={`tick-${one.key}`}
                data-space-free
                aria-label={`${one.title}: ${one.fine}; ${stateWords(one.state)}`}
                onPress={() => tick.mutate({ item: one.key, state: nextState(one.state) })}
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
