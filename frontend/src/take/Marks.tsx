import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Ticks } from "../api/client";
import { StateMark } from "../design/StateMark";
import { colour, onClip } from "../design/tokens";
import { marksAround, type Spot } from "./marks";
import { markOf, stateWords } from "./ticks";

const Leads = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  line {
    stroke: ${onClip.light};
    stroke-width: 1.3;
  }
  .edge {
    stroke: ${onClip.dark};
    stroke-width: 2.6;
    opacity: 0.55;
  }
`;
type At = { $at: Spot };
const placed = ({ $at: [x, y] }: At) => ({ style: { left: `${x}%`, top: `${y}%` } });
const Mark = styled(Button).attrs<At>(placed)`
  position: absolute;
  display: grid;
  place-items: center;
  width: 40px;
  height: 40px;
  margin: -20px 0 0 -20px;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  font-size: 13px;
  font-weight: 700;
  cursor: pointer;
  span {
    display: grid;
    place-items: center;
    width: 26px;
    height: 26px;
    border: 2px solid ${onClip.dark};
    border-radius: 50%;
    background: ${colour("ground")};
    color: ${colour("ink")};
  }
  small {
    position: absolute;
    top: -4px;
    color: ${onClip.light};
    font-size: 13px;
    text-shadow:
      0 0 3px ${onClip.dark},
      0 0 3px ${onClip.dark},
      0 0 2px ${onClip.dark};
  }
  .after {
    right: 2px;
  }
  .before {
    left: 2px;
  }
  .under {
    top: auto;
    bottom: -4px;
  }
  &[data-hovered] span {
    outline: 2px solid ${onClip.light};
  }
  &[data-focus-visible] span {
    outline: 3px solid ${onClip.light};
  }
`;

/** One place to look at: the row's number in its list, the row, and where on the still. */
export type Looked = { number: number; item: Ticks["items"][number]; at: Spot };

const EDGE = 16; // of a hundred: over a mark nearer to the still's top there is no room

/** Where a mark's number stands: toward the middle of the still, and never off it. */
const besideOf = ([x, y]: Spot) => `${x < 50 ? "after" : "before"}${y < EDGE ? " under" : ""}`;

/** Where to look on a still: a numbered ring for each row, with a lead to the very place. A tap on it is a tap on its row; by keys the rows are tapped. */
export function Marks({ looked, onTap }: { looked: Looked[]; onTap: (item: Ticks["items"][number]) => void }) {
  const spots = marksAround(looked.map(({ at }) => at));
  return (
    <>
      <Leads viewBox="0 0 100 100" aria-hidden>
        {["edge", "lead"].map((name) =>
          looked.map(({ number, at: [x, y] }, i) => (
            <line key={`${name}${number}`} className={name} x1={spots[i]![0]} y1={spots[i]![1]} x2={x} y2={y} />
          )),
        )}
      </Leads>
      {looked.map(({ number, item }, i) => (
        <Mark
          key={item.key}
          $at={spots[i]!}
          excludeFromTabOrder
          aria-label={`${number} on the picture, ${item.title}: ${stateWords(item.state)}`}
          data-testid={`mark-${item.key}`}
          onPress={() => onTap(item)}
        >
          <span>{item.state === null ? number : <StateMark state={markOf(item.state)} size={16} />}</span>
          {item.state !== null && <small className={besideOf(spots[i]!)}>{number}</small>}
        </Mark>
      ))}
    </>
  );
}
