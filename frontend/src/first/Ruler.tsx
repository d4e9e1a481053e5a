import styled from "styled-components";

import { colour } from "../design/tokens";
import { useSize } from "../design/useSize";
import { saidMinutes, STEP_WORDS, wedgesOf } from "./run";
import type { Going } from "./useRun";

const Drawn = styled.div`
  grid-column: 1 / -1;
  margin: 12px 0 18px;
  svg {
    display: block;
  }
  text {
    fill: ${colour("ink")};
    font-size: 14px;
    font-weight: 700;
  }
  .soft {
    fill: ${colour("soft")};
    font-weight: 400;
  }
`;
const LEFT = 6;
const WORDS_Y = 14;
const MIDDLE_Y = 34;
const HALF = 8;
const LINE_Y = 50;
const HEIGHT = 74;
const LEAST_MIN = 6;
const PX_A_LETTER = 7.4;
const GAP_PX = 12;
const EVERY_MIN = [1, 2, 5];
const MOST_MARKS = 8;

/** The first minutes on a ruler: steps as wedges, as long as they took, and as long as they usually take. */
export function Ruler({ going }: { going: Going }) {
  const { ref, width } = useSize<HTMLDivElement>();
  if (!going) return null;
  const wedges = wedgesOf(going.run, going.now_ms);
  const now_min = (going.now_ms - going.run.began_ms) / 60_000;
  const end_min = Math.max(LEAST_MIN, Math.ceil(wedges.at(-1)!.to_min + 0.2));
  const each_min = EVERY_MIN.find((each) => end_min <= MOST_MARKS * each) ?? 10;
  const x = (minutes: number) => LEFT + (minutes / end_min) * (width - 2 * LEFT - 40);
  const done = wedges.filter((one) => one.done).length;
  const label = `${done} of ${wedges.length} steps are done after ${saidMinutes(now_min)}: ${wedges.map((one) => `${STEP_WORDS[one.step]} ${one.done ? "done" : "to come"}`).join(", ")}`;
  const words = wedges.map(({ step, done: is }, i) =>
    is || i !== done ? STEP_WORDS[step] : `${STEP_WORDS[step]}, now ${saidMinutes(now_min)}`,
  );
  const starts = besideEachOther(
    wedges.map(({ from_min }) => x(from_min) + 2),
    words,
  );
  return (
    <Drawn ref={ref}>
      <svg width={width} height={HEIGHT} role="img" aria-label={label}>
        {wedges.map(({ step, from_min, to_min, done: is }, i) => {
          const [a, b] = [x(from_min) + 2, Math.max(x(to_min) - 2, x(from_min) + 3)];
          return (
            <g key={step}>
              <text x={starts[i]} y={WORDS_Y} className={is ? undefined : "soft"}>
                {words[i]}
              </text>
              <path
                d={`M${a},${MIDDLE_Y} L${b},${MIDDLE_Y - HALF} V${MIDDLE_Y + HALF} Z`}
                fill={is ? colour("ink") : "none"}
                stroke={colour(is ? "ink" : "soft")}
                strokeDasharray={is ? undefined : "4 3"}
              />
            </g>
          );
        })}
        <path d={`M${LEFT},${LINE_Y} H${x(end_min)}`} stroke={colour("hair")} />
        {Array.from({ length: Math.floor(end_min / each_min) + 1 }, (_, i) => i * each_min).map((minute) => (
          <g key={minute}>
            <path d={`M${x(minute)},${LINE_Y - 4} V${LINE_Y + 4}`} stroke={colour("soft")} />
            <text x={x(minute)} y={HEIGHT - 6} className="soft" textAnchor={minute ? "middle" : "start"}>
              {minute ? `${minute} min` : "0"}
            </text>
          </g>
        ))}
        <path d={`M${x(now_min)},${MIDDLE_Y - HALF - 6} V${LINE_Y + 6}`} stroke={colour("ink")} strokeWidth="3" />
      </svg>
    </Drawn>
  );
}

/** Where words begin that stand over their places, or right of the ones before where those are longer. */
function besideEachOther(places: number[], words: string[]): number[] {
  return places.reduce<number[]>((starts, place, i) => {
    const taken = i ? starts[i - 1]! + words[i - 1]!.length * PX_A_LETTER + GAP_PX : 0;
    return [...starts, Math.max(place, taken)];
  }, []);
}
