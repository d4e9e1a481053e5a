import styled from "styled-components";

import type { Card } from "../api/client";
import { colour } from "../design/tokens";
import { useSize } from "../design/useSize";
import { minutesFor, runOf, secondsOf, type Stretch } from "./draft";
import { Panel } from "./Panel";
import { Wedge } from "./Wedge";

const Run = styled(Panel)`
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
    color: ${colour("ink")};
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
const EACH_S = [5, 10, 20, 30];
const MOST_TICKS = 10;

/** The whole run on a ruler of seconds, its sum in one line, and what that means for a lesson. */
export function WholeRun({ hold, cards, most, rest_s }: { hold: boolean; cards: Card[]; most: number; rest_s: number }) {
  const { ref, width } = useSize<HTMLDivElement>();
  const run = runOf(cards, hold ? Infinity : most, rest_s);
  const whole_s = run.at(-1)!.to_s + secondsOf(2, cards[0]!);
  const x = (s: number) => 2 + (s / whole_s) * (width - 4);
  const each_s = EACH_S.find((step) => whole_s / step <= MOST_TICKS) ?? 60;
  return (
    <Run>
      <h2>
        The whole run{" "}
        <span>
          {hold
            ? "the clip begins with the instrument down"
            : `${most} breaths in a row are the limit, then ${rest_s} s of ordinary breathing, put in by the program`}
        </span>
      </h2>
      <Place ref={ref}>
        <svg width={width} height={HEIGHT} aria-hidden>
          {run.map((one, i) => (
            <Piece key={i} one={one} card={cards[one.set]!} hold={hold} x={x} />
          ))}
          <path d={`M${x(0)},${MIDDLE + 24} H${x(whole_s)}`} stroke={colour("ink")} strokeWidth="1" />
          {Array.from({ length: Math.floor(whole_s / each_s) + 1 }, (_, i) => (
            <text key={i} x={x(i * each_s)} y={HEIGHT - 6} textAnchor={i ? "middle" : "start"}>
              {i * each_s} s
            </text>
          ))}
        </svg>
      </Place>
      <Sum>
        {PARTS.map(({ part, words }) => {
          const own = run.filter((one) => one.part === part);
          return own.length ? (
            <span key={part}>
              <b>{own.reduce((sum, one) => sum + one.to_s - one.from_s, 0).toFixed(1)}</b> {words(own.length, hold)}{" "}
            </span>
          ) : null;
        })}
        <span>
          = <b>{run.at(-1)!.to_s.toFixed(1)} s</b>
        </span>
        <span className="lesson">
          with {CHANGE_S} s to change chairs {STUDENTS} students take <b>{minutesFor(STUDENTS, run.at(-1)!.to_s, CHANGE_S)} minutes</b>
        </span>
      </Sum>
    </Run>
  );
}

const PARTS: { part: Stretch["part"]; words: (n: number, hold: boolean) => string }[] = [
  { part: "countin", words: (n) => (n === 1 ? "count-in" : `${n} count-ins`) },
  { part: "breath", words: (n, hold) => `${n === 1 ? "one" : n} ${hold ? "raise" : "breath"}${n === 1 ? "" : "s"}` },
  { part: "rest", words: (n) => (n === 1 ? "rest" : `${n} rests`) },
];

function Piece({ one, card, hold, x }: { one: Stretch; card: Card; hold: boolean; x: (s: number) => number }) {
  if (one.part === "breath")
    return <Wedge card={card} x={(beat) => x(one.from_s + secondsOf(beat, card))} middle={MIDDLE} half={14} hold={hold} />;
  if (one.part === "countin")
    return Array.from({ length: Math.ceil(card.countin_beats) }, (_, i) => (
      <path key={i} d={`M${x(one.from_s + secondsOf(i, card))},${MIDDLE - 8} v16`} stroke={colour("soft")} strokeWidth="1.5" />
    ));
  return (
    <g>
      <rect x={x(one.from_s)} y={MIDDLE - 18} width={x(one.to_s) - x(one.from_s)} height="36" fill={colour("wash")} />
      <text x={x((one.from_s + one.to_s) / 2)} y={MIDDLE + 5} textAnchor="middle">
        rest {Math.round(one.to_s - one.from_s)} s
      </text>
    </g>
  );
}
