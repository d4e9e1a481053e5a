import styled from "styled-components";

import type { Firsts, Outcome } from "../api/client";
import { Action } from "../design/Action";
import { colour } from "../design/tokens";
import { OUTCOMES } from "./outcomes";
import { outOf } from "./rungs";

const Box = styled.section`
  display: grid;
  align-content: start;
  gap: 12px;
  .came {
    color: ${colour("soft")};
    font-size: 17px;
    font-weight: 650;
  }
  h2 {
    font-size: clamp(24px, 2.6vw, 34px);
    line-height: 1.15;
    font-weight: 750;
    text-wrap: balance;
  }
  > div.does {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
  }
`;
const Order = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 12px 2px;
`;
const Group = styled.li`
  h3 {
    font-size: 15px;
    font-weight: 650;
    color: ${colour("soft")};
    text-align: center;
    border-bottom: 1.5px solid ${colour("soft")};
    margin: 0 3px 4px;
  }
  ol {
    display: flex;
  }
`;
const Check = styled.li<{ $now: boolean }>`
  padding: 5px 9px;
  border-radius: 4px;
  text-align: center;
  background: ${(p) => (p.$now ? colour("ink") : "transparent")};
  color: ${(p) => (p.$now ? colour("ground") : colour("ink"))};
  font-weight: 650;
  small {
    display: block;
    font-weight: 400;
    font-size: 14px;
  }
`;
const GROUP_WORDS = { instrument: "the instrument", hands: "hands", mouth: "mouth", air: "air" } as const;
const GROUPS = Object.keys(GROUP_WORDS) as (keyof typeof GROUP_WORDS)[];

type Props = { firsts: Firsts; outcome: Outcome; at: number; onFixed: () => void; onNext: () => void };

/** One question at a time, the instrument before the child; below it the whole order, with how often each was the reason here. */
export function Checks({ firsts, outcome, at, onFixed, onNext }: Props) {
  const checks = firsts.checks[outcome] ?? [];
  const now = checks[at];
  const all = outOf(firsts, outcome);
  return (
    <Box aria-label="What to check">
      <p className="came">{OUTCOMES.find((one) => one.key === outcome)?.past} Check next, the instrument before the child:</p>
      <div role="status" className="asked">
        <h2>{now ? now.ask : "All is fine, and it still does not come? Rest, then try once more; or look at it with the repair shop."}</h2>
      </div>
      <Order>
        {GROUPS.filter((group) => checks.some((one) => one.group === group)).map((group) => (
          <Group key={group}>
            <h3>{GROUP_WORDS[group]}</h3>
            <ol>
              {checks.map(
                (one, i) =>
                  one.group === group && (
                    <Check key={one.name} $now={i === at} aria-current={i === at ? "step" : undefined}>
                      {one.name}
                      <small>{all ? `${one.times} of ${all}` : "not yet"}</small>
                    </Check>
                  ),
              )}
            </ol>
          </Group>
        ))}
      </Order>
      <div className="does">
        <Action main large autoFocus data-space-free letter="Enter" onPress={onFixed} isDisabled={!now}>
          That was it
        </Action>
        <Action large letter="space" data-space-free onPress={onNext}>
          {now ? "It is fine, next check" : "From the start"}
        </Action>
      </div>
    </Box>
  );
}
