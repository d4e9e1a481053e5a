import styled from "styled-components";

import type { Report, Verdict } from "../api/client";
import { shown } from "../shared/valueWords";
import { ToMoment } from "./ToMoment";

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
/** The middle of the longest part of a kind, seconds; null where the clip shows none. */
export function middleOf(segments: readonly Segment[], kind: Segment["kind"]): number | null {
  const longest = segments.filter((one) => one.kind === kind).toSorted((a, b) => b.to_s - b.from_s - (a.to_s - a.from_s))[0];
  return longest ? (longest.from_s + longest.to_s) / 2 : null;
}

/** The number of a row in each part of the clip, and the moment each is from: the middle of the longest of its kind. */
export function bySegment({ by_segment: values = {} }: Pick<Verdict, "by_segment">, segments: readonly Segment[]) {
  return KINDS.flatMap(([kind, words]) => {
    const value = values[kind];
    const at_s = middleOf(segments, kind);
    return value === undefined || at_s === null ? [] : [{ kind, words, value, at_s }];
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
          <ToMoment key={kind} onPress={() => onSeek(at_s)}>
            <span>{words}</span>
            <span>
              <b>{number}</b> {behind}
            </span>
          </ToMoment>
        );
      })}
    </Line>
  );
}
