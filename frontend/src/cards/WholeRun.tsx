import styled from "styled-components";

import type { Card } from "../api/client";
import { colour } from "../design/tokens";
import { useWidth } from "../design/useWidth";
import { breathBeats, minutesFor, secondsOf, sumOf } from "./draft";
import { Wedge } from "./Wedge";

const Run = styled.section`
  h2 {
    font-size: 17px;
    font-weight: 650;
    span {
      font-weight: 400;
      color: ${colour("soft")};
    }
  }
  svg text {
    fill: ${colour("soft")};
    font-size: 14px;
  }
`;
const Place = styled.div`
  contain: inline-size;
`;
const Sum = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  border-top: 1px solid ${colour("hair")};
  padding-top: 10px;
  margin-top: 6px;
  b {
    font-size: 21px;
    font-weight: 800;
  }
  span {
    color: ${colour("soft")};
  }
  .lesson {
    margin-left: auto;
    b {
      color: ${colour("ink")};
    }
  }
`;
const HEIGHT = 74;
const MIDDLE = 26;
const CHANGE_S = 45;
const STUDENTS = 10;
const EACH_S = 5;

/** The whole run on a ruler of seconds, its sum in one line, and what that means for a lesson. */
export function WholeRun({ card, most, rest_s }: { card: Card; most: number; rest_s: number }) {
  const { ref, width } = useWidth<HTMLDivElement>();
  const sum = sumOf(card);
  const whole_s = sum.whole + secondsOf(2, card);
  const x = (s: number) => 2 + (s / whole_s) * (width - 4);
  const each_s = secondsOf(breathBeats(card), card);
  const beat_s = secondsOf(1, card);
  return (
    <Run>
      <h2>
        The whole run{" "}
        <span>
          {most} breaths in a row are the limit, then {rest_s} s of ordinary breathing, put in by the program
        </span>
      </h2>
      <Place ref={ref}>
        <svg width={width} height={HEIGHT} aria-hidden>
          {Array.from({ length: Math.ceil(card.countin_beats) }, (_, i) => (
            <path key={i} d={`M${x(i * beat_s)},${MIDDLE - 8} V${MIDDLE + 8}`} stroke={colour("soft")} strokeWidth="1.5" />
          ))}
          {Array.from({ length: card.cycles }, (_, i) => (
            <Wedge key={i} card={card} x={(beat) => x(sum.countin + i * each_s + secondsOf(beat, card))} middle={MIDDLE} half={14} />
          ))}
          <path d={`M${x(0)},${MIDDLE + 24} H${x(whole_s)}`} stroke={colour("ink")} strokeWidth="1" />
          {Array.from({ length: Math.floor(whole_s / EACH_S) + 1 }, (_, i) => (
            <text key={i} x={x(i * EACH_S)} y={HEIGHT - 6} textAnchor={i ? "middle" : "start"}>
              {i * EACH_S} s
            </text>
          ))}
        </svg>
      </Place>
      <Sum>
        <b>{sum.countin.toFixed(1)}</b> <span>count-in</span> <span>+</span> <b>{sum.breaths.toFixed(1)}</b>{" "}
        <span>{card.cycles === 1 ? "one breath" : `${card.cycles} breaths`}</span> <span>=</span> <b>{sum.whole.toFixed(1)} s</b>
        <span className="lesson">
          with {CHANGE_S} s to change chairs {STUDENTS} students take <b>{minutesFor(STUDENTS, card, CHANGE_S)} minutes</b>
        </span>
      </Sum>
    </Run>
  );
}
