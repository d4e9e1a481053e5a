import { useState } from "react";
import { Button } from "react-aria-components";
import styled from "styled-components";

import type { BenchCard, BenchStep, Run, Section } from "../api/client";
import { KeyCap } from "../design/Action";
import { colour } from "../design/tokens";
import { Enlarged, Lines } from "./Lines";
import { OwnValue } from "./OwnValue";
import { choicesAt, wayOf } from "./way";

const Stage = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1.62fr) minmax(0, 1fr);
  gap: 30px;
  padding: 10px 0 4px;
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Drawn = styled.figure`
  height: clamp(240px, calc(100vh - 470px), 560px);
  @media (max-width: 860px) {
    height: auto;
    aspect-ratio: 2.1;
  }
`;
const Words = styled.div`
  display: grid;
  align-content: start;
  gap: 12px;
  h2 {
    font-size: clamp(25px, 2.6vw, 34px);
    line-height: 1.12;
    font-weight: 750;
    text-wrap: balance;
  }
  .see {
    font-size: 16px;
    color: ${colour("soft")};
  }
  .see b {
    color: ${colour("ink")};
  }
`;
const Careful = styled.p`
  border-left: 4px solid ${colour("ink")};
  padding: 1px 0 1px 14px;
  font-size: 18px;
`;
const Switch = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  flex-wrap: wrap;
  > div {
    display: flex;
    border: 1.5px solid ${colour("ink")};
    border-radius: 6px;
    overflow: hidden;
  }
`;
const Way = styled(Button)<{ $on: boolean }>`
  border: 0;
  min-height: 56px;
  padding: 0 16px;
  font: inherit;
  font-size: 17px;
  font-weight: ${(p) => (p.$on ? 700 : 400)};
  cursor: pointer;
  background: ${(p) => (p.$on ? colour("ink") : "transparent")};
  color: ${(p) => (p.$on ? colour("ground") : colour("ink"))};
`;

type Props = { card: BenchCard; run: Run; step: BenchStep; section: Section; onWay: (word: string) => void };

/** One drawing with the spot that matters, one sentence, the caution, and the other way where there is one. */
export function StepShown({ card, run, step, section, onWay }: Props) {
  const [asking, setAsking] = useState(false);
  const drawing = card.drawings[step.drawing];
  const whole = step.drawing === card.drawing;
  return (
    <Stage aria-label={`Step ${run.step + 1}, ${step.title}`}>
      <Drawn>{drawing && (whole && step.part ? <Enlarged drawing={drawing} part={step.part} /> : <Lines drawing={drawing} />)}</Drawn>
      <Words>
        <h2>{step.say}</h2>
        {step.careful && (
          <Careful>
            <b>Careful:</b> {step.careful}
          </Careful>
        )}
        {choicesAt(card, step.key).map((choice) => (
          <Switch key={choice.key}>
            <div role="group" aria-label={choice.title}>
              {choice.options.map((one) => {
                const on = wayOf(card, run, choice).key === one.key;
                return (
                  <Way key={one.key} $on={on} aria-pressed={on} data-space-free onPress={() => onWay(`${choice.key}=${one.key}`)}>
                    {one.label}
                  </Way>
                );
              })}
            </div>
            <KeyCap aria-hidden>V</KeyCap>
          </Switch>
        ))}
        <p className="see">
          {step.hold && (
            <>
              <b>Hold</b> {step.hold}
              {step.never && (
                <>
                  , <b>never</b> {step.never}
                </>
              )}
              .{" "}
            </>
          )}
          <b>See</b> {step.check}. <b>Not</b> {step.wrong.join("; ")}.{" "}
          {step.value && <OwnValue step={step} section={section} open={asking} onOpen={setAsking} />}
        </p>
      </Words>
    </Stage>
  );
}
