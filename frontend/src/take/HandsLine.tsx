import { useState, type PointerEvent } from "react";
import styled from "styled-components";

import type { Report } from "../api/client";
import { useSize } from "../design/useSize";
import { colour } from "../design/tokens";

const Figure = styled.figure`
  min-width: 0;
  svg {
    display: block;
    overflow: visible;
  }
  text {
    font-size: 14px;
    fill: ${colour("ink")};
  }
  .soft {
    fill: ${colour("soft")};
    font-size: 13px;
  }
  .ring {
    cursor: pointer;
    touch-action: none;
  }
  .ring.moves {
    cursor: ew-resize;
  }
  .wide {
    fill: transparent;
  }
  input:focus-visible {
    outline: none;
  }
`;
const HEIGHT = 112;
const TOP = 22;
const FLOOR = 84;
const WORDS: Record<string, string> = { rest: "rest", raising: "raising", playing: "playing" };
const TICK_S = 2;

const STEP_S = 0.1; // by one arrow key

type StillOf = NonNullable<NonNullable<Report["hold"]>["hands"]>["stills"][number];
/** onMove: another moment for a still, where the clip is still there. */
type Props = { report: Report; stills: StillOf[]; onSeek: (t_s: number) => void; onMove?: (kind: StillOf["kind"], t_s: number) => void };

/** How high the hands were over the clip, with the moments that were made stills of as rings on it: a tap goes there, a drag or arrows show another. */
export function HandsLine({ report, stills, onSeek, onMove }: Props) {
  const { ref, width } = useSize<HTMLDivElement>();
  const [held, setHeld] = useState<StillOf["kind"] | null>(null);
  const [focused, setFocused] = useState<StillOf["kind"] | null>(null);
  const hands = report.hold?.hands;
  if (!hands || hands.t_s.length < 2) return null;
  const long = Math.max(report.clip.duration_s, hands.t_s.at(-1)!);
  const low = Math.min(...hands.height_pct);
  const high = Math.max(...hands.height_pct);
  const x = (t_s: number) => (t_s / long) * Math.max(width - 4, 1) + 2;
  const y = (pct: number) => FLOOR - ((pct - low) / Math.max(high - low, 1)) * (FLOOR - TOP);
  const at = (t_s: number) => {
    const after = hands.t_s.findIndex((t) => t >= t_s);
    return hands.height_pct[after < 0 ? hands.height_pct.length - 1 : after]!;
  };
  const drag = (event: PointerEvent<SVGGElement>, kind: StillOf["kind"]) => {
    const drawing = event.currentTarget.ownerSVGElement;
    if (held !== kind || !onMove || !drawing) return;
    const share = (event.clientX - drawing.getBoundingClientRect().left - 2) / Math.max(width - 4, 1);
    onMove(kind, Math.min(Math.max(share, 0), 1) * long);
  };
  const line = hands.t_s.map((t_s, i) => `${i ? "L" : "M"}${x(t_s).toFixed(1)},${y(hands.height_pct[i]!).toFixed(1)}`).join(" ");
  const ticks = Array.from({ length: Math.floor(long / TICK_S) + 1 }, (_, i) => i * TICK_S);
  const times = ["", "once", "twice", "three times"][hands.raised] ?? `${hands.raised} times`;
  const raised = times ? `brought up ${times}` : "not brought up in this clip";
  return (
    <Figure aria-label={`The hands over the clip: ${raised}`} data-testid="hands-line">
      <div ref={ref}>
        <svg width={width} height={HEIGHT} role="img" aria-label={raised}>
          <line x1={0} x2={width} y1={TOP} y2={TOP} stroke={colour("soft")} strokeDasharray="3 4" />
          <text className="soft" x={width} y={TOP - 7} textAnchor="end">
            {times ? `at the mouth, ${times}` : raised}
          </text>
          <path d={line} fill="none" stroke={colour("ink")} strokeWidth="2.2" strokeLinejoin="round" />
          <line x1={0} x2={width} y1={FLOOR + 8} y2={FLOOR + 8} stroke={colour("hair")} />
          {ticks.map((t_s) => (
            <text key={t_s} className="soft" x={x(t_s)} y={HEIGHT - 2} textAnchor={t_s === 0 ? "start" : "middle"}>
              {t_s === 0 ? "0 s" : t_s}
            </text>
          ))}
          {stills.map((still) => (
            <g
              key={still.kind}
              className={onMove ? "ring moves" : "ring"}
              data-testid={`ring-${still.kind}`}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                setHeld(still.kind);
                onSeek(still.t_s);
              }}
              onPointerMove={(event) => drag(event, still.kind)}
              onPointerUp={() => setHeld(null)}
              onPointerCancel={() => setHeld(null)}
            >
              <circle className="wide" cx={x(still.t_s)} cy={y(at(still.t_s))} r={18} />
              <circle
                cx={x(still.t_s)}
                cy={y(at(still.t_s))}
                r={held === still.kind || focused === still.kind ? 8 : 5.5}
                fill={colour("ground")}
                stroke={colour("ink")}
                strokeWidth="2"
              />
              <text
                x={x(still.t_s) + (still.kind === "rest" ? -10 : 10)}
                y={y(at(still.t_s)) + (still.kind === "raising" ? 5 : -9)}
                textAnchor={still.kind === "rest" ? "end" : "start"}
              >
                {WORDS[still.kind]}
              </text>
            </g>
          ))}
        </svg>
        {onMove &&
          stills.map(({ kind, t_s }) => (
            <input
              key={kind}
              className="unseen"
              type="range"
              aria-label={`${WORDS[kind]}: moment of the still, seconds`}
              min={0}
              max={long}
              step={STEP_S}
              value={t_s}
              onFocus={() => setFocused(kind)}
              onBlur={() => setFocused(null)}
              onChange={(event) => onMove(kind, Number(event.target.value))}
            />
          ))}
      </div>
    </Figure>
  );
}
