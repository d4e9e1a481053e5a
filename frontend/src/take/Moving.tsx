import { useImperativeHandle, useMemo, type Ref, useRef } from "react";

import type { Report } from "../api/client";
import { onClip } from "../design/tokens";
import { LANES, LANE_WORDS, restOf, type Lane } from "../breathscore/layout";
import { capPath, frontOf, markedAt, MIDDLE, pathsOf, pushed, type Moved } from "./bodyLine";
import { type OnBody, type ToPx, valueAt } from "./onBody";
import { unfollowed } from "./Places";

export type MovingHandle = { show: (t_s: number) => void };

type Place = readonly [number, number];
type Props = { report: Report; handle: Ref<MovingHandle>; size: number; placed: OnBody };

const OFF = 0.1; // trunk: between a name and what it names, where that is farthest out
const BARE_AHEAD = 0.32; // trunk: where a name begins whose edge is not drawn
const BEHIND = -0.3; // trunk: where the shoulders' name ends, clear of the back
const BESIDE = 0.45; // trunk: the same from the front, on the side where nothing is held
const FIRM: Lane[] = ["abdomen", "chest"];

/** The player's own front and shoulders over the clip, their movement five times as large: the belly filled, the chest a firm line, the shoulders a dashed one,
 *  as in the lanes of the score; in pencil while it is marked. */
export function Moving({ report, handle, size, placed }: Props) {
  const drawn = useRef<SVGGElement | null>(null);
  const front = useMemo(() => frontOf(report), [report]);
  const { trace } = report;
  const shown = LANES.filter((lane) => trace[lane].length);
  const atFirst = placed(report.player?.from_s ?? 0);
  useImperativeHandle(handle, () => ({
    show: (t_s) => {
      const moved = movedAt(report, t_s);
      const marked = markedAt(report, t_s);
      const toPx = placed(t_s);
      const paths = { ...pathsOf(front, moved, toPx), cap: capPath(report, 0, toPx), shoulder: capPath(report, moved.shoulder ?? 0, toPx) };
      for (const [part, d] of Object.entries(paths)) {
        const pencil = marked.get(part as Lane);
        for (const line of drawn.current?.querySelectorAll(`[data-part=${part}]`) ?? []) {
          line.setAttribute("d", d);
          if (line.hasAttribute("data-ink")) line.setAttribute("stroke", onClip[pencil ?? "light"]);
        }
      }
      for (const lane of shown) {
        const words = drawn.current?.querySelector(`[data-name=${lane}]`);
        if (words) words.textContent = nameOf(lane, moved[lane] ?? 0);
        words?.setAttribute("class", marked.get(lane) ?? "");
      }
      for (const name of drawn.current?.querySelectorAll<SVGGElement>("[data-beside]") ?? [])
        name.setAttribute("transform", wayOf(atFirst, toPx, MIDDLE[name.dataset.beside as Lane]));
    },
  }));
  const names = namesOf(report, front, atFirst, size);
  const dashes = (length: number) => `${size * length} ${size * length * 0.8}`;
  return (
    <g ref={drawn} data-testid="moving" fill="none" strokeLinejoin="round" strokeLinecap="round">
      <path data-part="filled" fill={onClip.light} opacity="0.8" />
      <path data-part="rest" stroke={onClip.light} strokeWidth={size * 0.06} opacity="0.8" />
      <path data-part="hidden" stroke={onClip.light} strokeWidth={size * 0.1} strokeDasharray={dashes(0.28)} />
      {FIRM.map((part) => (
        <g key={part}>
          <path data-part={part} stroke={onClip.dark} strokeWidth={size * 0.32} opacity="0.5" />
          <path data-part={part} data-ink stroke={onClip.light} strokeWidth={size * 0.18} />
        </g>
      ))}
      {shown.includes("shoulder") && (
        <>
          <path data-part="cap" stroke={onClip.light} strokeWidth={size * 0.06} opacity="0.8" />
          <path data-part="shoulder" stroke={onClip.dark} strokeWidth={size * 0.32} opacity="0.5" />
          <path data-part="shoulder" data-ink stroke={onClip.light} strokeWidth={size * 0.16} strokeDasharray={dashes(0.34)} />
        </>
      )}
      {names.map(({ lane, from, at, end, followed }) => (
        <g key={lane} data-beside={lane}>
          {from && (
            <path
              d={`M${from.join()} L${at.join()}`}
              stroke={onClip.light}
              strokeWidth={size * 0.06}
              strokeDasharray={`${size * 0.06} ${size * 0.2}`}
            />
          )}
          <text
            data-name={followed ? lane : undefined}
            x={at[0]}
            y={at[1] + size * 0.3}
            textAnchor={end ? "end" : "start"}
            fontSize={size * 0.86}
          >
            {followed ? LANE_WORDS[lane] : `${LANE_WORDS[lane]} not followed`}
          </text>
        </g>
      ))}
    </g>
  );
}

/** How a name goes along with a body that moves away from where it was at first. */
function wayOf(atFirst: ToPx, now: ToPx, up: number): string {
  const [was, is] = [atFirst(up, 0), now(up, 0)];
  return `translate(${(is[0] - was[0]).toFixed(1)},${(is[1] - was[1]).toFixed(1)})`;
}

const STILL = 0.05; // percent of trunk: shown as none

const nameOf = (lane: Lane, moved: number) => `${LANE_WORDS[lane]} ${Math.abs(moved) < STILL ? "0.0" : moved.toFixed(1)}`;

/** How far each lane is from its rest at a moment. */
function movedAt({ trace }: Report, t_s: number): Moved {
  const known = LANES.flatMap((lane) => {
    const value = valueAt(trace.t_s, trace[lane], t_s);
    return value === null ? [] : [[lane, value - restOf(trace[lane])] as const];
  });
  return Object.fromEntries(known);
}

/** How far the instrument leads to the picture's right; 0 without one. */
const heldX = (hold: Report["hold"]) => (hold?.axis_px ? hold.axis_px[2]! - hold.axis_px[0]! : 0);

/** Where the names of the lanes stand, each with a way to what it names: belly and chest ahead of the body, clear of it where it is farthest out; the shoulders
 *  behind it, or on the side where nothing is held. */
function namesOf(report: Report, front: ReturnType<typeof frontOf>, toPx: ToPx, size: number) {
  const { trace, player, view, hold } = report;
  const [fx, fy] = (player?.forward ?? [1, 0]) as [number, number];
  const lying = Math.abs(fy) > Math.abs(fx); // names stand beside each other: the chest's one line further out
  const farthest: Moved = Object.fromEntries(LANES.map((lane) => [lane, Math.max(0, ...trace[lane]) - restOf(trace[lane])]));
  const missing = unfollowed(report);
  return LANES.filter((lane) => trace[lane].length || missing.includes(lane)).map((lane) => {
    const followed = trace[lane].length > 0;
    const up = MIDDLE[lane];
    if (lane === "shoulder") {
      const beside = view === "front" ? -BESIDE * Math.sign((heldX(hold) || -1) * fx) : BEHIND;
      return { lane, from: null, at: toPx(up + OFF, beside), end: beside * fx < 0, followed };
    }
    const edge = front.find((spot) => spot.up >= up) ?? front.at(-1);
    const out = edge ? edge.ahead + pushed(up, farthest) + OFF : BARE_AHEAD;
    const [x, y] = toPx(up, out);
    const at: Place = lying && lane === "chest" ? [x, y - 1.3 * size] : [x, y];
    return { lane, from: edge ? toPx(up, edge.ahead) : null, at, end: fx < 0, followed };
  });
}
