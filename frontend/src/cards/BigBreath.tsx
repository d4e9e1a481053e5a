import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import styled from "styled-components";

import type { Card } from "../api/client";
import { colour } from "../design/tokens";
import { useSize } from "../design/useSize";
import { marksOf, moved, secondsOf, snapped, type Handle } from "./draft";
import { Wedge } from "./Wedge";

const HEIGHT = 178;
const TOP = 30;
const MIDDLE = 98;
const HALF = 50;
const SIDE = 14;
const SPARE_BEATS = 2;
const LEAST_BEATS = 12;
const BAR = 4;
const ROOMY_BEATS = 3; // an inhale this long has its words inside

const Place = styled.div`
  contain: inline-size;
`;
const Drawing = styled.svg`
  display: block;
  touch-action: none;
  user-select: none;
  text {
    fill: ${colour("ink")};
    font-size: 16px;
  }
  .soft {
    fill: ${colour("soft")};
    font-size: 15px;
  }
  .bar {
    font-weight: 800;
  }
  .inside {
    fill: ${colour("ground")};
    font-weight: 650;
  }
  .strong {
    font-weight: 650;
  }
  [role="slider"] {
    cursor: ew-resize;
    outline-offset: 4px;
  }
`;
const LABELS: Record<Handle, string> = { in: "breathe in", wait: "wait before out", out: "breathe out", empty: "stay empty" };
const HOLD_LABELS: Record<Handle, string> = { in: "bring it up", wait: "wait", out: "keep it there", empty: "rest it" };

type BigProps = { card: Card; hold: boolean; was: Card | null; emptyAllowed: boolean; onChange: (card: Card) => void };

/** One breath of the open card on a ruler of beats; its corners are dragged, or moved by the arrow keys: whole beats, with Shift quarters. */
export function BigBreath({ card, hold, was, emptyAllowed, onChange }: BigProps) {
  const { ref, width } = useSize<HTMLDivElement>();
  const held = useRef<Handle | null>(null);
  const marks = marksOf(card);
  const beats = Math.max(LEAST_BEATS, Math.ceil(marks.rest) + SPARE_BEATS, was ? Math.ceil(marksOf(was).rest) + SPARE_BEATS : 0);
  const x = (beat: number) => SIDE + (beat / beats) * (width - 2 * SIDE);
  const beatAt = (px: number) => ((px - SIDE) / (width - 2 * SIDE)) * beats;
  const roomy = marks.full >= ROOMY_BEATS;
  const places: Record<Handle, { beat: number; y: number; length: number }> = {
    in: { beat: marks.full, y: hold ? MIDDLE - HALF : MIDDLE + HALF, length: card.inhale_beats },
    wait: { beat: marks.leave, y: MIDDLE - HALF, length: card.pause_beats },
    out: { beat: marks.out, y: hold ? MIDDLE - HALF : MIDDLE, length: card.exhale_beats ?? 0 },
    empty: { beat: marks.rest, y: hold ? MIDDLE + HALF : MIDDLE, length: card.empty_beats },
  };
  const handles = (Object.keys(places) as Handle[]).filter((one) =>
    hold ? one !== "wait" : one !== "empty" || emptyAllowed || card.empty_beats > 0,
  );
  const drag = (event: PointerEvent<SVGSVGElement>) => {
    if (!held.current) return;
    const { left } = event.currentTarget.getBoundingClientRect();
    onChange(moved(card, held.current, snapped(beatAt(event.clientX - left), event.shiftKey)));
  };
  const press = (handle: Handle) => (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    onChange(moved(card, handle, places[handle].beat + (event.shiftKey ? by / 4 : by)));
  };
  return (
    <Place ref={ref}>
      <Drawing
        width={width}
        height={HEIGHT}
        role="group"
        aria-label="One breath of this card; its corners are moved by the arrow keys"
        onPointerMove={drag}
        onPointerUp={() => (held.current = null)}
        onPointerCancel={() => (held.current = null)}
      >
        <rect x={x(0)} y={TOP} width={x(marks.full) - x(0)} height={HEIGHT - TOP - 12} fill={colour("wash")} />
        <path d={`M${x(0)},${TOP} H${x(beats)}`} stroke={colour("ink")} strokeWidth="1.6" />
        {Array.from({ length: beats }, (_, i) => (
          <g key={i}>
            <path
              d={`M${x(i)},${TOP} V${i % BAR === 0 ? HEIGHT - 12 : TOP + 8}`}
              stroke={colour(i % BAR === 0 ? "hair" : "soft")}
              strokeWidth="1"
            />
            <text x={x(i + 0.5)} y={TOP - 8} textAnchor="middle" className={i % BAR === 0 ? "bar" : "soft"}>
              {i + 1}
            </text>
          </g>
        ))}
        {was && <Wedge card={was} x={x} middle={MIDDLE} half={HALF} hold={hold} soft dashed />}
        <Wedge card={card} x={x} middle={MIDDLE} half={HALF} hold={hold} />
        <text
          x={x(marks.full) + (roomy && !hold ? -10 : 14)}
          y={roomy && !hold ? MIDDLE + 6 : MIDDLE + HALF + 18}
          textAnchor={roomy && !hold ? "end" : "start"}
          className={roomy && !hold ? "inside" : "strong"}
        >
          {hold ? "up" : "in"} {card.inhale_beats}, {secondsOf(card.inhale_beats, card).toFixed(1)} s
        </text>
        <text x={x(marks.leave) + 14} y={MIDDLE + 6} className="strong">
          {card.exhale_beats === null
            ? "out as long as it lasts"
            : `${hold ? "keep" : "out"} ${card.exhale_beats}, ${secondsOf(card.exhale_beats, card).toFixed(1)} s`}
        </text>
        {card.pause_beats > 0 && (
          <text x={x((marks.full + marks.leave) / 2)} y={MIDDLE - 8} textAnchor="middle" className="soft">
            wait {card.pause_beats}
          </text>
        )}
        {handles.map((handle) => (
          <circle
            key={handle}
            role="slider"
            tabIndex={0}
            aria-label={(hold ? HOLD_LABELS : LABELS)[handle]}
            aria-valuemin={0}
            aria-valuemax={32}
            aria-valuenow={places[handle].length}
            aria-valuetext={`${places[handle].length} beats`}
            cx={x(places[handle].beat)}
            cy={places[handle].y}
            r={9}
            fill={colour(handle === "out" ? "ink" : "ground")}
            stroke={colour("ink")}
            strokeWidth="2"
            onPointerDown={(event) => {
              held.current = handle;
              event.currentTarget.ownerSVGElement?.setPointerCapture(event.pointerId);
            }}
            onKeyDown={press(handle)}
          />
        ))}
      </Drawing>
    </Place>
  );
}
