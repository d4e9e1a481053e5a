import { useId, useImperativeHandle, useLayoutEffect, useMemo, useRef, type MouseEvent, type Ref } from "react";
import styled from "styled-components";

import type { Card, Report } from "../api/client";
import { colour } from "../design/tokens";
import { useSize } from "../design/useSize";
import { BreathTable } from "./BreathTable";
import { CountLine } from "./CountLine";
import { Foot } from "./Foot";
import { Grips, type Grip } from "./Grips";
import { layoutOf, type Layout, type Place, type Wedge } from "./layout";
import { Marks } from "./Marks";
import { summaryOf } from "./summary";
import { Traces } from "./Traces";

const NARROW_PX = 560;
export const NARROW_LEAST_PX = 250; // of height: the lanes' names stand over them
const ASIDE_S = 0.35;

const Figure = styled.figure`
  contain: inline-size; /* its place gives the width, never the drawing */
  min-width: 0;
`;
const Drawing = styled.svg<{ $seeks: boolean }>`
  display: block;
  cursor: ${(p) => (p.$seeks ? "pointer" : "default")};
  touch-action: manipulation;
  text {
    fill: ${colour("ink")};
    font-size: 13px;
  }
  .quiet {
    fill: ${colour("soft")};
    font-size: 12px;
  }
  .count {
    font-weight: 650;
    font-size: 15px;
    text-anchor: middle;
  }
  .name,
  .over {
    font-weight: 650;
    paint-order: stroke;
    stroke: ${colour("ground")};
    stroke-width: 4;
  }
  .name {
    text-anchor: end;
  }
  .judged {
    fill: ${colour("watch")};
    font-weight: 650;
    paint-order: stroke;
    stroke: ${colour("ground")};
    stroke-width: 4;
  }
  .judged.work {
    fill: ${colour("work")};
  }
`;

export type ScoreHandle = { show: (t_s: number) => void };
type Props = {
  report: Report;
  card: Card | null;
  height: number;
  chosen?: number | null;
  onSeek?: (t_s: number) => void;
  playhead?: Ref<ScoreHandle>;
  mend?: { grips: Grip[]; onMove: (grip: Grip, t_s: number) => void; onLeave: () => void };
};

/** Count line and three lanes over the counted bars. The same drawing everywhere, at its true width so that its words keep their size; where that is
 * narrow the chosen breath fills it over its own count. */
export function BreathScore({ report, card, height: wanted, chosen = null, onSeek, playhead, mend }: Props) {
  const titleId = useId();
  const clipId = useId();
  const { ref, width } = useSize<HTMLElement>();
  const height = width < NARROW_PX ? Math.max(wanted, NARROW_LEAST_PX) : wanted;
  const head = useRef<SVGGElement>(null);
  const at_s = useRef(0);
  const layout = useMemo(() => layoutOf(report, card, placeOf(report, width, height, chosen)), [report, card, width, height, chosen]);
  const place = (t_s: number) => {
    at_s.current = t_s;
    head.current?.setAttribute("transform", `translate(${layout.x(t_s)},0)`);
  };
  useImperativeHandle(playhead, () => ({ show: place }));
  useLayoutEffect(() => place(at_s.current));
  const seek = (event: MouseEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    onSeek?.(layout.time(event.clientX - box.left));
  };
  return (
    <Figure ref={ref}>
      <Drawing
        width={width}
        height={height}
        role={mend?.grips.length ? "group" : "img"}
        aria-labelledby={titleId}
        $seeks={onSeek !== undefined}
        onClick={onSeek && seek}
        data-testid="breath-score"
      >
        <title id={titleId}>{summaryOf(report)}</title>
        <clipPath id={clipId}>
          <rect x={layout.left - 8} width={layout.right - layout.left + 16} y="0" height={height} />
        </clipPath>
        <g clipPath={`url(#${clipId})`}>
          <Washes layout={layout} />
        </g>
        <Bars layout={layout} />
        <g clipPath={`url(#${clipId})`}>
          <CountLine layout={layout} />
        </g>
        <Traces layout={layout} report={report} />
        <Foot layout={layout} />
        <g clipPath={`url(#${clipId})`}>
          <Marks layout={layout} report={report} chosen={chosen} />
          {chosen !== null && !layout.narrow && <Chosen layout={layout} wedge={layout.done[chosen]} />}
          {playhead && <Playhead layout={layout} head={head} />}
        </g>
        {mend && <Grips layout={layout} {...mend} />}
      </Drawing>
      <BreathTable report={report} />
    </Figure>
  );
}

/** The whole clip, or the chosen breath alone where there is no room for more. */
function placeOf(report: Report, width: number, height: number, chosen: number | null): Place {
  const narrow = width < NARROW_PX;
  const breath = report.breaths[chosen ?? 0];
  if (!narrow || breath?.inhale_start_s == null || breath.exhale_end_s == null) return { width, height, narrow };
  return { width, height, narrow, from: breath.inhale_start_s - ASIDE_S, to: breath.exhale_end_s + ASIDE_S };
}

function Washes({ layout }: { layout: Layout }) {
  return layout.washes.map(({ from, to }) => (
    <rect
      key={from}
      x={layout.x(from)}
      width={Math.max(layout.x(to) - layout.x(from), 0)}
      y={layout.top}
      height={layout.bottom - layout.top}
      fill={colour("wash")}
    />
  ));
}

function Bars({ layout }: { layout: Layout }) {
  const firstBar = layout.beats.find((beat) => beat.bar);
  return (
    <g>
      {firstBar?.label === "1" && !layout.narrow && firstBar.x - layout.left > 54 && (
        <text className="quiet" x={layout.left + 12} y={layout.top - 8}>
          count-in
        </text>
      )}
      {layout.phases.map(({ x, words }) => (
        <text key={x} className="quiet" textAnchor="middle" x={x} y="12">
          {words}
        </text>
      ))}
      {layout.beats.map((beat) => (
        <g key={beat.x}>
          <line
            x1={beat.x}
            x2={beat.x}
            y1={layout.top - (beat.bar ? 6 : 0)}
            y2={beat.bar ? layout.bottom : layout.top + 8}
            stroke={beat.bar ? colour("soft") : colour("hair")}
            strokeWidth="1"
          />
          {beat.label && (
            <text className={layout.narrow ? "count" : "quiet"} x={beat.x + (layout.narrow ? 0 : 4)} y={layout.top - 10}>
              {beat.label}
            </text>
          )}
        </g>
      ))}
      <line x1={layout.left} x2={layout.left} y1={layout.top} y2={layout.bottom} stroke={colour("soft")} strokeWidth="1" />
      {!layout.narrow && (
        <text className="name" x={layout.left - 12} y={layout.countMiddle + 4}>
          count
        </text>
      )}
    </g>
  );
}

function Chosen({ layout, wedge }: { layout: Layout; wedge: Wedge | undefined }) {
  if (!wedge) return null;
  const from = layout.x(wedge.from) - 5;
  const to = layout.x(wedge.to) + 5;
  return (
    <path
      d={`M${from},${layout.bottom + 3} V${layout.top - 3} H${to} V${layout.bottom + 3} Z`}
      fill="none"
      stroke={colour("ink")}
      strokeWidth="1.8"
      strokeLinejoin="round"
    />
  );
}

function Playhead({ layout, head }: { layout: Layout; head: Ref<SVGGElement> }) {
  return (
    <g ref={head} data-testid="playhead">
      <line x1="0" x2="0" y1={layout.top - 4} y2={layout.bottom} stroke={colour("ink")} strokeWidth="2.4" />
      <path d={`M-7,${layout.top - 14} H7 L0,${layout.top - 3} Z`} fill={colour("ink")} />
    </g>
  );
}
