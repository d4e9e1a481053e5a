import { Button } from "react-aria-components";
import styled from "styled-components";

import type { LadderCard } from "../api/client";
import { checkWords } from "../breathscore/layout";
import { PHONE } from "../design/sizes";
import { colour } from "../design/tokens";
import { useSize } from "../design/useSize";
import { besidesOf, breathBeats, secondsOf } from "./draft";
import { Wedge } from "./Wedge";

const List = styled.ol`
  list-style: none;
  position: relative;
  margin-top: 8px;
  padding-top: 22px;
  h2 {
    display: flex;
    align-items: center;
    gap: 8px;
    font-size: 16px;
    font-weight: 650;
    color: ${colour("soft")};
    margin: 12px 0 2px;
    i {
      font-style: normal;
      display: grid;
      place-items: center;
      width: 22px;
      height: 22px;
      border: 1.5px solid ${colour("ink")};
      border-radius: 50%;
      color: ${colour("ink")};
      font-size: 14px;
    }
  }
`;
const Row = styled(Button)`
  display: grid;
  grid-template-columns: 110px auto minmax(0, 1fr);
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 36px;
  padding: 2px 10px;
  margin-left: 10px;
  border: 1.5px solid transparent;
  border-radius: 6px;
  background: none;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  b {
    font-weight: 650;
  }
  span {
    color: ${colour("soft")};
    font-size: 15px;
    line-height: 1.2;
    text-align: right;
  }
  &[data-hovered] {
    background: ${colour("wash")};
  }
  &[aria-current="true"] {
    border-color: ${colour("ink")};
    background: ${colour("sheet")};
  }
  @media ${PHONE} {
    grid-template-columns: 110px minmax(0, 1fr);
    row-gap: 0;
    width: calc(100% - 10px);
    > span {
      grid-column: 2; /* under the breath: beside it there is no room */
      text-align: left;
    }
  }
`;
const Scale = styled.li`
  position: absolute;
  left: 138px;
  top: 0;
  text {
    fill: ${colour("soft")};
    font-size: 13px;
  }
`;
const TICK_S = 5;
const MOST_WIDTH = 190;
const BESIDE = 158; // where the breaths begin, and what is free behind them
const HEIGHT = 22;
const LEAST_S = 10;

/** The rungs with their cards, every breath drawn in seconds on one scale: equal counts at another tempo look as long as they are. */
export function Ladder({ cards, chosen, onChoose }: { cards: LadderCard[]; chosen: number | null; onChoose: (id: number) => void }) {
  const longest_s = Math.max(LEAST_S, ...cards.map(({ check }) => (check.card ? secondsOf(breathBeats(check.card), check.card) : 0)));
  const rungs = [...new Set(cards.map(({ rung }) => rung))];
  const { ref, width } = useSize<HTMLOListElement>();
  const wide = Math.min(MOST_WIDTH, width - BESIDE);
  const x = (s: number) => 2 + ((wide - 4) * s) / longest_s;
  return (
    <List ref={ref}>
      <Scale aria-hidden role="presentation">
        <svg width={wide} height={HEIGHT} viewBox={`0 0 ${wide} ${HEIGHT}`}>
          <path d={`M${x(0)},21 H${x(longest_s)}`} stroke={colour("ink")} strokeWidth="1" />
          {Array.from({ length: Math.floor(longest_s / TICK_S) + 1 }, (_, i) => (
            <g key={i}>
              <path d={`M${x(i * TICK_S)},16 V21`} stroke={colour("ink")} strokeWidth="1" />
              <text x={x(i * TICK_S)} y="12" textAnchor={i ? "middle" : "start"}>
                {i * TICK_S} s
              </text>
            </g>
          ))}
        </svg>
      </Scale>
      {rungs.map((rung) => {
        const own = cards.filter((card) => card.rung === rung);
        return (
          <li key={rung}>
            <h2>
              <i>{rung}</i> {own[0]?.title}
            </h2>
            {own.map(({ id, check, students }) => (
              <Row key={id} aria-current={id === chosen} onPress={() => onChoose(id)} data-testid="card-row">
                <b>{checkWords(check)}</b>
                <svg width={wide} height={HEIGHT} viewBox={`0 0 ${wide} ${HEIGHT}`} aria-hidden>
                  {check.card && (
                    <Wedge
                      card={check.card}
                      x={(beat) => x(secondsOf(beat, check.card!))}
                      middle={HEIGHT / 2}
                      half={8}
                      hold={check.kind === "hold"}
                    />
                  )}
                </svg>
                <span>{besidesOf(check, students).map(unbroken).join(", ")}</span>
              </Row>
            ))}
          </li>
        );
      })}
    </List>
  );
}

const unbroken = (words: string) => words.replaceAll(" ", "\u00a0");
