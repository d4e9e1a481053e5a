import { useImperativeHandle, useMemo, useRef, type Ref } from "react";
import styled from "styled-components";

import type { Card } from "../api/client";
import { colour } from "../design/tokens";
import { useSize } from "../design/useSize";
import { beatsOf, partsOf, raised } from "./counting";

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
export function RunLine({ card, hold = false, handle }: { card: Card; hold?: boolean; handle: Ref<RunHandle> }) {
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
        {hold ? <Raises drawn={drawn} x={x} ink="hair" /> : <Wedges drawn={drawn} x={x} ink="hair" />}
        <g clipPath="url(#gone)">{hold ? <Raises drawn={drawn} x={x} ink="ink" /> : <Wedges drawn={drawn} x={x} ink="ink" />}</g>
        <g ref={mark} transform={`translate(${x(0)},0)`}>
          <path d={`M0,4 V${HEIGHT - 14}`} stroke={colour("ink")} strokeWidth="6" />
        </g>
      </Drawing>
    </Place>
  );
}

type Drawn = { beats: number; countin: number; wedges: { from: number; full: number; leave: number; to: number; rest: number }[] };

function drawnOf(card: Card): Drawn {
  const wedges: Drawn["wedges"] = [];
  let beat = 0;
  for (const part of partsOf(card)) {
    const to = beat + (part.beats ?? OPEN_BEATS);
    const last = wedges.at(-1);
    if (part.part === "in") wedges.push({ from: beat, full: to, leave: to, to, rest: to });
    if (part.part === "pause" && last) last.leave = last.to = last.rest = to;
    if (part.part === "out" && last) last.to = last.rest = to;
    if (part.part === "empty" && last) last.rest = to;
    beat = to;
  }
  return { beats: beatsOf(card) ?? beat, countin: card.countin_beats, wedges };
}

type DrawnProps = { drawn: Drawn; x: (beat: number) => number; ink: "ink" | "hair" };

/** Of a hold: the instrument's way up, along, and down again. */
function Raises({ drawn, x, ink }: DrawnProps) {
  return drawn.wedges.map(({ from, full, to, rest }) => (
    <path
      key={from}
      d={raised(x(from), x(full), x(to), x(rest), MIDDLE + HALF, MIDDLE - HALF)}
      fill="none"
      stroke={colour(ink)}
      strokeWidth="3"
    />
  ));
}

function Wedges({ drawn, x, ink }: DrawnProps) {
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
