import type { RefObject } from "react";
import styled from "styled-components";

import type { Card, MirrorOut } from "../api/client";
import { LANE_WORDS } from "../breathscore/layout";
import { colour, onClip } from "../design/tokens";
import { useSize } from "../design/useSize";
import { onMirror } from "./place";
import { askedOf, lanesOf, type Drawn, type LanesPlace } from "./lanes";

const Over = styled.div`
  position: absolute;
  inset: 0;
  pointer-events: none;
  svg {
    display: block;
  }
  text {
    fill: ${colour("ink")};
    font-size: 24px;
  }
  .small {
    font-size: 16px;
    paint-order: stroke;
    stroke: ${colour("ground")};
    stroke-width: 5px;
  }
`;
type StageProps = { video: RefObject<HTMLVideoElement | null>; shown: MirrorOut | null; card: Card; began_ms: number | null };
const PICTURE_SHARE = 0.36;
const COUNT_HALF = 20;
const AHEAD_PX = 70; // of the breath that is going on, after now
const NARROW_PX = 560; // a phone's: the lanes' names stand under them

/** Over the whole mirror: the lanes at the left, and a dotted lead from each pen's tip to its mark on the body. */
export function Stage({ video, shown, card, began_ms }: StageProps) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const narrow = width < NARROW_PX;
  const place: LanesPlace = { left: narrow ? 0 : 150, right: width * 0.56, top: height * 0.42 + 50, bottom: height - (narrow ? 24 : 34) };
  if (!shown || shown.state !== "seen") return <Over ref={ref} />;
  const lanes = lanesOf(shown, place);
  const now_s = shown.t_s.at(-1) ?? 0;
  const asked = askedOf(card, began_ms, now_s, place);
  const middle = height * 0.42 + 16;
  const ahead = Math.min(AHEAD_PX, width * (1 - PICTURE_SHARE) - place.right);
  return (
    <Over ref={ref}>
      <svg width={width} height={height} role="img" aria-label="Shoulders, chest and abdomen as they move now" data-testid="lanes">
        <clipPath id="shown">
          <rect x={place.left} y="0" width={place.right - place.left + ahead} height={height} />
        </clipPath>
        {asked.map(({ from, full, leave, to }) => {
          const [a, b] = [Math.max(from, place.left), Math.min(full, place.right)];
          return (
            <g key={from} clipPath="url(#shown)">
              {b > a && <rect x={a} y={middle - 26} width={b - a} height={height - middle + 26} fill={colour("wash")} />}
              <path d={`M${from},${middle} L${full},${middle - COUNT_HALF} V${middle + COUNT_HALF} Z`} fill={colour("ink")} />
              <path
                d={`M${leave},${middle - COUNT_HALF} L${to},${middle} L${leave},${middle + COUNT_HALF} Z`}
                fill="none"
                stroke={colour("ink")}
                strokeWidth="2"
              />
            </g>
          );
        })}
        {lanes.map((one) => (
          <LaneNow key={one.lane} one={one} place={place} />
        ))}
        {lanes.map(({ lane, base }) => (
          <text
            key={lane}
            {...(narrow ? { className: "small", x: 0, y: base + 18 } : { x: place.left - 16, y: base - 4, textAnchor: "end" })}
          >
            {LANE_WORDS[lane]}
          </text>
        ))}
        <path d={`M${place.right},${middle - 30} V${height}`} stroke={colour("ink")} strokeWidth="4" />
        {lanes.map((one) => {
          const box = { left: width * (1 - PICTURE_SHARE), top: 0, width: width * PICTURE_SHARE, height };
          const at = shown.at[one.lane] && onMirror(video.current, shown.at[one.lane]!, box);
          return one.tip && at && <Lead key={one.lane} one={one} at={at} />;
        })}
      </svg>
    </Over>
  );
}

function LaneNow({ one, place }: { one: Drawn; place: LanesPlace }) {
  const line = one.points.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(" L");
  const look = one.lane === "chest" ? { strokeWidth: 4 } : { strokeWidth: 2.5, strokeDasharray: "9 6" };
  return (
    <g>
      <path
        d={`M${place.left},${one.base} H${place.right}`}
        stroke={colour("hair")}
        strokeWidth="1.5"
        strokeDasharray={line ? undefined : "3 6"}
      />
      {line && one.lane === "abdomen" && (
        <path d={`M${one.points[0]!.x},${one.base} L${line} L${one.tip!.x},${one.base} Z`} fill={colour("ink")} />
      )}
      {line && one.lane !== "abdomen" && <path d={`M${line}`} fill="none" stroke={colour("ink")} strokeLinejoin="round" {...look} />}
      {one.tip && <circle cx={one.tip.x} cy={one.tip.y} r="7" fill={colour("ink")} />}
    </g>
  );
}

function Lead({ one, at }: { one: Drawn; at: { x: number; y: number } }) {
  const { tip, lane } = one;
  const half = (at.x - tip!.x) / 2;
  return (
    <g>
      <path
        d={`M${tip!.x},${tip!.y} C${tip!.x + half},${tip!.y} ${at.x - half},${at.y} ${at.x - 18},${at.y}`}
        fill="none"
        stroke={onClip.light}
        strokeWidth="2.5"
        strokeDasharray="2 6"
        strokeLinecap="round"
      />
      <rect
        x={at.x - 16}
        y={at.y - 11}
        width="32"
        height="22"
        fill={lane === "abdomen" ? onClip.light : "none"}
        stroke={onClip.light}
        strokeWidth={lane === "chest" ? 4 : 2.5}
        strokeDasharray={lane === "shoulder" ? "6 4" : undefined}
      />
    </g>
  );
}
