import { useImperativeHandle, type Ref, useRef } from "react";

import type { Report } from "../api/client";
import { onClip } from "../design/tokens";
import { LANES, LANE_WORDS, restOf, type Lane } from "../breathscore/layout";
import { Axis } from "./Axis";
import { axisShown } from "./axis";
import { OverClip } from "./OverClip";
import { outlineAt, Places, unfollowed } from "./Places";

/** Height of each region on the trunk's axis, share of the trunk's length. */
const HEIGHT: Record<Lane, number> = { shoulder: 1.0, chest: 0.72, abdomen: 0.26 };
const AHEAD = 0.42;
const LINES = 20; // of the words on the clip, in the height that is shown
const GROWS = 5; // the band shows the movement this many times larger

export type OverlayHandle = { show: (t_s: number) => void };

type Props = { report: Report; handle: Ref<OverlayHandle>; shownHeight: number; bands: boolean; places: boolean };

/** The trunk's axis, the instrument's, and the three tracked bands, drawn on the clip; each band grows with its region. places: where was looked. */
export function Overlay({ report, handle, shownHeight, bands: banded, places }: Props) {
  const bands = useRef<Partial<Record<Lane, SVGGElement | null>>>({});
  const outline = useRef<SVGGElement | null>(null);
  const shown_s = useRef(0);
  const { player, scale, trace, clip } = report;
  const size = shownHeight / LINES;
  useImperativeHandle(handle, () => ({
    show: (t_s) => {
      shown_s.current = t_s;
      drawOutline(outline.current, report, t_s);
      for (const lane of LANES) {
        const value = valueAt(trace.t_s, trace[lane], t_s);
        const group = bands.current[lane];
        if (!group || value === null || !scale?.trunk_px) continue;
        const rest = restOf(trace[lane]);
        group
          .querySelector("rect")
          ?.setAttribute("width", String(Math.max(size * 1.1 + (GROWS * (value - rest) * scale.trunk_px) / 100, 3)));
        const text = group.querySelector("text");
        if (text) text.textContent = `${LANE_WORDS[lane]} ${Math.abs(value - rest) < 0.05 ? "0.0" : (value - rest).toFixed(1)}`;
      }
    },
  }));
  if (!player || !scale?.trunk_px) return null;
  const [hx, hy] = player.hip_px as [number, number];
  const [ux, uy] = player.up as [number, number];
  const [fx, fy] = player.forward as [number, number];
  const trunk = scale.trunk_px;
  const at = (height: number, ahead: number) => [hx + trunk * (ux * height + fx * ahead), hy + trunk * (uy * height + fy * ahead)] as const;
  const [sx, sy] = at(1, 0);
  const leftward = fx < -0.3;
  const axis = axisShown(report);
  const widest = Math.max(...LANES.map((lane) => Math.max(0, ...trace[lane]) - restOf(trace[lane])), 1);
  const beside = size * 1.5 + (GROWS * widest * trunk) / 100; // clear of the band where it is widest
  return (
    <OverClip viewBox={`0 0 ${clip.width_px} ${clip.height_px}`} aria-hidden data-testid="overlay">
      <line x1={hx} y1={hy} x2={sx} y2={sy} stroke={onClip.dark} strokeWidth={size * 0.18} opacity="0.5" />
      <line
        x1={hx}
        y1={hy}
        x2={sx}
        y2={sy}
        stroke={onClip.light}
        strokeWidth={size * 0.1}
        strokeDasharray={`${size * 0.25} ${size * 0.22}`}
      />
      {[
        [hx, hy],
        [sx, sy],
      ].map(([x, y]) => (
        <circle key={`${x}`} cx={x} cy={y} r={size * 0.26} fill="none" stroke={onClip.light} strokeWidth={size * 0.12} />
      ))}
      {axis && <Axis axis={axis} size={size} />}
      {places && <Places report={report} size={size} />}
      {places && (
        <g
          ref={(group) => {
            outline.current = group;
            drawOutline(group, report, shown_s.current);
          }}
          data-testid="outline"
          fill="none"
          strokeLinejoin="round"
        >
          <path stroke={onClip.dark} strokeWidth={size * 0.24} opacity="0.5" />
          <path stroke={onClip.light} strokeWidth={size * 0.1} />
        </g>
      )}
      {banded &&
        unfollowed(report).map((lane) => {
          const [x, y] = at(HEIGHT[lane], AHEAD);
          return (
            <text key={lane} x={x} y={y + size * 0.3} textAnchor={leftward ? "end" : "start"} fontSize={size * 0.86}>
              {LANE_WORDS[lane]} not followed
            </text>
          );
        })}
      {LANES.filter((lane) => banded && trace[lane].length).map((lane) => {
        const [x, y] = at(HEIGHT[lane], AHEAD);
        return (
          <g
            key={lane}
            ref={(group) => {
              bands.current[lane] = group;
            }}
            transform={`translate(${x},${y}) scale(${leftward ? -1 : 1},1)`}
          >
            <rect
              x="0"
              y={-size / 2}
              width={size * 1.1}
              height={size}
              rx={size * 0.12}
              stroke={onClip.light}
              strokeWidth={size * 0.1}
              fill={lane === "abdomen" ? onClip.light : "none"}
              strokeDasharray={lane === "shoulder" ? `${size * 0.22} ${size * 0.16}` : undefined}
            />
            <text
              transform={`translate(${beside},${size * 0.3})${leftward ? " scale(-1,1)" : ""}`}
              textAnchor={leftward ? "end" : "start"}
              fontSize={size * 0.86}
            >
              {LANE_WORDS[lane]}
            </text>
          </g>
        );
      })}
    </OverClip>
  );
}

/** The body's outline as it was looked at nearest to a moment. */
function drawOutline(group: SVGGElement | null, report: Report, t_s: number) {
  for (const path of group?.querySelectorAll("path") ?? []) path.setAttribute("d", outlineAt(report, t_s));
}

/** Value of a trace at a time, straight between its samples; null outside or where it was not seen. */
export function valueAt(times: number[], values: number[], t_s: number): number | null {
  const first = times[0];
  const second = times[1];
  if (!values.length || first === undefined || second === undefined) return null;
  const place = (t_s - first) / (second - first);
  const low = Math.min(Math.max(Math.floor(place), 0), values.length - 1);
  const high = Math.min(low + 1, values.length - 1);
  const part = Math.min(Math.max(place - low, 0), 1);
  return values[low]! * (1 - part) + values[high]! * part;
}
