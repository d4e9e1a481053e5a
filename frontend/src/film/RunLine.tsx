import { useImperativeHandle, useMemo, useRef, type Ref } from "react";
import styled from "styled-components";

import type { Card } from "../api/client";
import { colour } from "../design/tokens";
import { useSize } from "../design/useSize";
import { beatsOf, partsOf } from "./counting";

const HEIGHT = 84;
const MIDDLE = 38;
const HALF = 22;
const SIDE = 18;
const OPEN_BEATS = 12; // how long an exhale without end is drawn

const Place = styled.div`
  contain: inline-size;
`;
const Drawing = styled.svg`
  display: block;
  text {
    fill: ${colour("soft")};
    font-size: 14px;
  }
`;

export type RunHandle = { show: (beat: number) => void };

/** The card as a run of wedges, what has gone by light, and a heavy mark where the count stands. */
export function RunLine({ card, handle }: { card: Card; handle: Ref<RunHandle> }) {
  const { ref, width } = useSize<HTMLDivElement>();
  const mark = useRef<SVGGElement>(null);
  const gone = useRef<SVGRectElement>(null);
  const drawn = useMemo(() => drawnOf(card), [card]);
  const x = (beat: number) => SIDE + (beat / drawn.beats) * (width - 2 * SIDE);
  useImperativeHandle(handle, () => ({
    show: (beat) => {
      const at = x(Math.min(Math.max(beat, 0), drawn.beats));
      mark.current?.setAttribute("transform", `translate(${at},0)`);
      gone.current?.setAttribute("width", String(Math.max(at, 0)));
    },
  }));
  return (
    <Place ref={ref}>
      <Drawing width={width} height={HEIGHT} role="img" aria-label="The card as it runs" data-testid="run">
        <clipPath id="gone">
          <rect ref={gone} x="0" y="0" width="0" height={HEIGHT} />
        </clipPath>
        {Array.from({ length: Math.ceil(drawn.countin) }, (_, i) => (
          <path key={i} d={`M${x(i)},${MIDDLE - 10} V${MIDDLE + 10}`} stroke={colour("soft")} strokeWidth="2" />
        ))}
        <text x={x(0) + 8} y={HEIGHT - 12}>
          count-in
        </text>
        <Wedges drawn={drawn} x={x} ink="hair" />
        <g clipPath="url(#gone)">
          <Wedges drawn={drawn} x={x} ink="ink" />
        </g>
        <g ref={mark} transform={`translate(${x(0)},0)`}>
          <path d={`M0,4 V${HEIGHT - 14}`} stroke={colour("ink")} strokeWidth="6" />
        </g>
      </Drawing>
    </Place>
  );
}

type Drawn = { beats: number; countin: number; wedges: { from: number; full: number; leave: number; to: number }[] };

function drawnOf(card: Card): Drawn {
  const wedges: Drawn["wedges"] = [];
  let beat = 0;
  for (const part of partsOf(card)) {
    const to = beat + (part.beats ?? OPEN_BEATS);
    const last = wedges.at(-1);
    if (part.part === "in") wedges.push({ from: beat, full: to, leave: to, to });
    if (part.part === "pause" && last) last.leave = last.to = to;
    if (part.part === "out" && last) last.to = to;
    beat = to;
  }
  return { beats: beatsOf(card) ?? beat, countin: card.countin_beats, wedges };
}

function Wedges({ drawn, x, ink }: { drawn: Drawn; x: (beat: number) => number; ink: "ink" | "hair" }) {
  return drawn.wedges.map(({ from, full, leave, to }) => (
    <g key={from}>
      <path d={`M${x(from)},${MIDDLE} L${x(full)},${MIDDLE - HALF} V${MIDDLE + HALF} Z`} fill={colour(ink)} />
      {leave > full && <path d={`M${x(full)},${MIDDLE} H${x(leave)}`} stroke={colour(ink)} strokeWidth="2" />}
      <path
        d={`M${x(leave) + 2},${MIDDLE - HALF} L${x(to)},${MIDDLE} L${x(leave) + 2},${MIDDLE + HALF} Z`}
        fill="none"
        stroke={colour(ink)}
        strokeWidth="2"
        strokeLinejoin="round"
      />
    </g>
  ));
}
