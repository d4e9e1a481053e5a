import styled from "styled-components";

import { PHONE } from "../design/sizes";
import { colour } from "../design/tokens";
import { PART_WORDS, type Moment } from "../film/counting";

const Count = styled.div`
  position: absolute;
  left: 0;
  top: 0;
  width: 58%;
  height: 38%;
  display: flex;
  align-items: flex-end;
  gap: 3vw;
  .number {
    font-size: min(34vh, 250px);
    font-weight: 800;
    line-height: 0.8;
  }
  .part {
    font-size: min(12vh, 84px);
    font-weight: 800;
    line-height: 1;
  }
  .then {
    display: grid;
    gap: 2.4vh;
    font-size: 26px;
    color: ${colour("soft")};
    align-self: center;
  }
  .dots {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 12px;
    min-height: 34px;
  }
  .wait {
    font-size: 40px;
    font-weight: 800;
    align-self: center;
  }
  @media ${PHONE} {
    flex-wrap: wrap;
    align-content: flex-start;
    row-gap: 10px;
    .number {
      font-size: 104px;
    }
    .part {
      font-size: 40px;
    }
    .then {
      flex-basis: 100%;
      gap: 6px;
      font-size: 20px;
    }
    .dots {
      gap: 6px;
      min-height: 28px;
    }
    .wait {
      font-size: 28px;
      line-height: 1.15;
    }
  }
`;
const Dot = styled.i<{ $is: "gone" | "now" | "to come" }>`
  width: ${({ $is }) => ($is === "now" ? 34 : 22)}px;
  height: ${({ $is }) => ($is === "now" ? 34 : 22)}px;
  border: 3px solid ${colour("ink")};
  border-radius: 50%;
  background: ${({ $is }) => ($is === "to come" ? "none" : colour("ink"))};
`;
const SHORT: Record<string, string> = { in: "in", out: "out", pause: "wait", empty: "stay empty", "count-in": "ready", done: "" };
const MOST_DOTS = 12;

/** The count as large as it goes: what is done now, its number, a dot for each of its beats, and what comes then; what to wait for where nothing is counted. */
export function CountNow({ moment, cycles, wait }: { moment: Moment | null; cycles: number; wait: string }) {
  if (!moment)
    return (
      <Count aria-live="off">
        <p className="wait">{wait}</p>
      </Count>
    );
  const { part, number, breath, next } = moment;
  const beats = Math.ceil(moment.of ?? 0);
  return (
    <Count aria-live="off">
      <span className="part">{SHORT[part] ?? PART_WORDS[part]}</span>
      <span className="number" data-testid="count">
        {number || ""}
      </span>
      <span className="then">
        <span>{breath >= 0 && `breath ${breath + 1} of ${cycles}${breath + 1 === cycles ? ", then rest" : ""}`}</span>
        {beats > 0 && beats <= MOST_DOTS && (
          <span className="dots" aria-hidden="true">
            {Array.from({ length: beats }, (_, i) => (
              <Dot key={i} $is={stateOf(i + 1, number)} />
            ))}
          </span>
        )}
        <span>{next && `then ${SHORT[next.part]} ${next.beats ?? ""}`}</span>
      </span>
    </Count>
  );
}

function stateOf(beat: number, now: number) {
  if (beat === now) return "now";
  return beat < now ? "gone" : "to come";
}
