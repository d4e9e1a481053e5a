import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Report, Take, Ticks } from "../api/client";
import { useTick, useTicks } from "../api/said";
import { Said } from "../design/Fields";
import { PHONE } from "../design/sizes";
import { StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import { Marks } from "./Marks";
import { onStill, placeOf, type Body } from "./marks";
import { around, canShow, Still } from "./Still";
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
  grid-template-columns: repeat(${(p) => p.$stills}, ${(p) => STILL_PX[p.$stills] ?? 196}px) minmax(0, 1fr);
  gap: 12px 20px;
  align-items: start;
  @media (max-width: 1000px) {
    grid-template-columns: repeat(${(p) => p.$stills}, 1fr);
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
const CLOSE_TRUNKS = 0.75; // of the picture around mouth or hand
const NEARER = 0.5; // of the way from the key point to what is looked at, in the middle of a close-up

type Seen = { t_s: number; mouth_px: number[]; left_hand_px: number[]; right_hand_px: number[] };
type Item = Ticks["items"][number];

/** Between both hands. */
const middleOf = ({ left_hand_px: left, right_hand_px: right }: Seen) => [0, 1].map((i) => ((left[i] ?? 0) + (right[i] ?? 0)) / 2);

/** Where an item's key point is. */
function keyPoint({ near }: Item, seen: Seen, hip_px: number[]) {
  if (near === "back") return hip_px;
  if (near === "mouth") return seen.mouth_px;
  if (near === "rest") return middleOf(seen);
  return near === "left_hand" ? seen.left_hand_px : seen.right_hand_px;
}

/** What no camera sees: where to look, large, and a list to tap: once is fine, twice is not yet. */
export function TickList({ take, report }: { take: Take; report: Report }) {
  const known = useTicks(take.id).data;
  const tick = useTick(take.id);
  const stills = report.hold?.hands?.stills ?? [];
  const still = stills.find(({ kind }) => kind === "playing") ?? stills.at(-1);
  const rest = stills.find(({ kind }) => kind === "rest");
  const sideways = report.view !== "front" && report.position === "seated";
  const found = known && shownOf(known, { rest: rest !== undefined, back: sideways && still?.kind === "playing" });
  const trunk = report.scale?.trunk_px;
  if (!found || found.items.length === 0) return null;
  const tap = ({ key, state }: Item) => tick.mutate({ item: key, state: nextState(state) });
  const body: Body = { trunk_px: trunk ?? 0, ahead: report.view === "front" ? 0 : Math.sign(report.player?.forward[0] ?? 0) };
  const hips = report.player?.hip_px ?? [0, 0];
  const closeUp = (seen: Seen, words: string, label: string, parts: Item["near"][], wide = CLOSE_TRUNKS) => {
    const looked = found.items.flatMap((item, i) => (parts.includes(item.near) ? [{ number: i + 1, item }] : []));
    if (!looked[0]) return [];
    const { spot, near } = looked[0].item;
    const middle = near.endsWith("_hand") ? middleOf(seen) : keyPoint(looked[0].item, seen, hips);
    const at = placeOf(middle, { ahead: NEARER * spot.ahead, beside: 0, up: near === "back" ? spot.up : 0 }, body);
    const part = around(at, wide * body.trunk_px, 1, report.clip);
    const places = looked.map((one) => ({ ...one, at: onStill(placeOf(keyPoint(one.item, seen, hips), one.item.spot, body), part) }));
    return [{ seen, words, label, part, places }];
  };
  const closeUps = [
    ...(still ? closeUp(still, "mouth", "the mouth", ["mouth"]) : []),
    ...(still ? closeUp(still, "hands", "the hands", ["left_hand", "right_hand"]) : []),
    ...(still ? closeUp(still, "back", "the back", ["back"], 2 * CLOSE_TRUNKS) : []),
    ...(rest ? closeUp(rest, "rest", "the instrument at rest", ["rest"], 2 * CLOSE_TRUNKS) : []),
  ];
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
        {trunk &&
          canShow(take) &&
          closeUps.map(({ seen, words, label, part, places }) => (
            <Still key={words} take={take} t_s={seen.t_s} part={part} shape={1} clip={report.clip} words={words} label={label}>
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
