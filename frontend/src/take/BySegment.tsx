import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Report, Verdict } from "../api/client";
import { colour } from "../design/tokens";
import { shown } from "../shared/valueWords";

type Segment = Report["segments"][number];

/** What a clip shows by turns, in the order in which it comes. */
const KINDS: readonly [Segment["kind"], string][] = [
  ["instrument_down", "at rest"],
  ["raising", "raising"],
  ["inhale", "breathing in"],
  ["pause", "paused"],
  ["exhale", "breathing out"],
  ["playing", "playing"],
];

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  padding-block: 4px;
`;
const One = styled(Button)`
  display: grid;
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  line-height: 1.2;
  text-align: start;
  color: ${colour("soft")};
  cursor: pointer;
  span:first-child {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  b {
    font-weight: 650;
    color: ${colour("ink")};
  }
`;

/** The number of a row in each part of the clip, and the moment each is from: the middle of the longest of its kind. */
export function bySegment({ by_segment: values = {} }: Pick<Verdict, "by_segment">, segments: readonly Segment[]) {
  return KINDS.flatMap(([kind, words]) => {
    const value = values[kind];
    const longest = segments.filter((one) => one.kind === kind).toSorted((a, b) => b.to_s - b.from_s - (a.to_s - a.from_s))[0];
    return value === undefined || !longest ? [] : [{ kind, words, value, at_s: (longest.from_s + longest.to_s) / 2 }];
  });
}

type Props = { verdict: Verdict; segments: readonly Segment[]; onSeek: (t_s: number) => void };

/** How a row of posture came out at rest, while the instrument was raised and with each part of a breath; a tap shows the moment. */
export function BySegment({ verdict, segments, onSeek }: Props) {
  const parts = bySegment(verdict, segments);
  if (!parts.length) return null;
  return (
    <Line role="group" aria-label={`${verdict.title} by what the clip shows`} data-testid={`segments-${verdict.criterion}`}>
      {parts.map(({ kind, words, value, at_s }) => {
        const { number, words: behind } = shown(verdict, value);
        return (
          <One key={kind} onPress={() => onSeek(at_s)}>
            <span>{words}</span>
            <span>
              <b>{number}</b> {behind}
            </span>
          </One>
        );
      })}
    </Line>
  );
}
