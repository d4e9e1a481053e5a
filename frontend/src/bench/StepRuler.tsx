import styled from "styled-components";

import type { BenchCard, Run } from "../api/client";
import { colour } from "../design/tokens";
import { Piece } from "./Lines";
import { clock, spent } from "./way";

const Ruler = styled.ol`
  display: flex;
  overflow-x: auto;
  border-bottom: 0;
`;
const inkOf = ({ $now, $ahead }: { $now: boolean; $ahead: boolean }) => {
  if ($now) return "ground";
  return $ahead ? "soft" : "ink";
};
const Segment = styled.li<{ $now: boolean; $ahead: boolean }>`
  flex: 1 1 0;
  min-width: 84px;
  display: grid;
  justify-items: center;
  padding-bottom: 5px;
  border-radius: 4px;
  background: ${(p) => (p.$now ? colour("ink") : "transparent")};
  color: ${(p) => colour(inkOf(p))};
  font-size: 16px;
  b {
    font-weight: 700;
    text-align: center;
    line-height: 1.15;
  }
  small {
    font-size: 14px;
  }
`;
const Picture = styled.div`
  width: 100%;
  height: 40px;
  padding: 5px 10px;
  border-bottom: 1.5px solid currentColor;
  margin-bottom: 5px;
  position: relative;
  svg {
    stroke: currentColor;
  }
  &::after {
    content: "";
    position: absolute;
    right: 0;
    bottom: -6px;
    height: 12px;
    border-right: 1.5px solid currentColor;
  }
`;

/** The order of the steps as a ruler: each segment shows its part, and how long it took. */
export function StepRuler({ card, run, now }: { card: BenchCard; run: Run; now: number }) {
  return (
    <Ruler aria-label="Steps">
      {run.steps.map((key, i) => (
        <Piecewise key={key} card={card} run={run} stepKey={key} place={i} now={now} />
      ))}
    </Ruler>
  );
}

type Props = { card: BenchCard; run: Run; stepKey: string; place: number; now: number };

function Piecewise({ card, run, stepKey, place, now }: Props) {
  const step = card.steps.find((one) => one.key === stepKey);
  const drawing = card.drawings[card.drawing];
  if (!step) return null;
  const current = place === run.step;
  const ahead = place > run.step;
  const took = clock(spent(run, stepKey, now));
  return (
    <Segment $now={current} $ahead={ahead} aria-current={current ? "step" : undefined}>
      <Picture aria-hidden>{drawing && step.part && <Piece drawing={drawing} of={`part-${step.part}`} />}</Picture>
      <b>
        {place + 1} {step.title}
      </b>
      <small>{timeWords(current, ahead, took, clock(step.seconds))}</small>
    </Segment>
  );
}

function timeWords(current: boolean, ahead: boolean, took: string, planned: string): string {
  if (ahead) return `about ${planned}`;
  return current ? `${took} so far` : took;
}
