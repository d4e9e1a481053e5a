import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent, type RefObject } from "react";
import styled from "styled-components";

import type { Edits, Report, Take } from "../api/client";
import { useEdit, useMe } from "../api/queries";
import { onClip } from "../design/tokens";

type Place = [number, number];
const ARROWS: Record<string, Place> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
const STEPS = 160; // of an arrow key across the picture; with shift five at once
const NO_EDITS: Edits = { player: null, first_inhale_s: null, turns: [], line: null };

export type LineSetting = { near: Place | null; place: (at: Place) => void; leave: () => void };

/** The instrument's line, set by two taps where the reading did not find it or found another, and taken back. */
export function useSetLine(take: Take, report: Report, video: RefObject<HTMLVideoElement | null>) {
  const edit = useEdit(take.id);
  const may = useMe().data?.may.includes("overrule") ?? false;
  const [near, setNear] = useState<Place | "first" | null>(null);
  const edits = (report.edits ?? NO_EDITS) as Edits;
  const write = (line: Edits["line"]) => edit.mutate({ ...edits, line });
  const leave = () => setNear(null);
  const place = (at: Place) => {
    if (near === "first" || near === null) return setNear(at);
    leave();
    write({ t_s: video.current?.currentTime ?? 0, near_px: near, far_px: at });
  };
  const turn = () => {
    if (near !== null) return leave();
    if (edits.line) return write(null);
    video.current?.pause();
    setNear("first");
  };
  const setting: LineSetting | null = near === null ? null : { near: near === "first" ? null : near, place, leave };
  return { can: may && take.judged_anew && showsLine(report), has: Boolean(edits.line), setting, turn, trouble: edit.error?.message };
}

const OF_THE_LINE = new Set(["axis_level", "axis_to_trunk"]);

/** Whether the instrument's line lies in the picture, found or not: a tuba has none, and a trumpet's points at a camera in front of it. */
export const showsLine = ({ hold, verdicts }: Report) =>
  Boolean(hold?.instrument_axis_deg) || verdicts.some(({ criterion, reason }) => OF_THE_LINE.has(criterion) && reason !== "view_unserved");

const Over = styled.div`
  position: absolute;
  inset: 0;
  cursor: crosshair;
  touch-action: none;
  outline: none;
  svg {
    width: 100%;
    height: 100%;
    display: block;
  }
`;
const Asks = styled.p`
  position: absolute;
  left: 0;
  right: 0;
  top: 0;
  padding: 8px 12px;
  background: ${onClip.dark};
  color: ${onClip.light};
  font-weight: 650;
  pointer-events: none;
`;

/** What to tap now, over the top of the picture. */
export function LineAsks({ setting }: { setting: LineSetting }) {
  return <Asks role="status">{setting.near ? "Now tap its far end" : "Tap where it meets the mouth"}</Asks>;
}

/** Lies over the whole picture while a line is set: a tap, or arrow keys and enter, sets an end. */
export function Aim({ report, setting }: { report: Report; setting: LineSetting }) {
  const { width_px: width, height_px: height } = report.clip;
  const [at, setAt] = useState<Place>(() => (report.hold?.hands?.stills.at(-1)?.mouth_px as Place | undefined) ?? [width / 2, height / 2]);
  const own = useRef<HTMLDivElement>(null);
  useEffect(() => own.current?.focus({ preventScroll: true }), []);
  const inside = ([x, y]: Place): Place => [Math.min(Math.max(x, 0), width), Math.min(Math.max(y, 0), height)];
  const under = (event: PointerEvent<HTMLDivElement>): Place => {
    const box = event.currentTarget.getBoundingClientRect();
    return inside([((event.clientX - box.left) / box.width) * width, ((event.clientY - box.top) / box.height) * height]);
  };
  const press = (event: KeyboardEvent) => {
    const way = ARROWS[event.key];
    const by = (width / STEPS) * (event.shiftKey ? 5 : 1);
    if (way) setAt(inside([at[0] + way[0] * by, at[1] + way[1] * by]));
    else if (event.key === "Enter" || event.key === " ") setting.place(at);
    else if (event.key === "Escape" || event.key.toLowerCase() === "p") setting.leave();
    else return;
    event.preventDefault();
  };
  const size = width / 60;
  const ring = ([x, y]: Place) => (
    <>
      <circle cx={x} cy={y} r={size} fill="none" stroke={onClip.dark} strokeWidth={size * 0.5} />
      <circle cx={x} cy={y} r={size} fill="none" stroke={onClip.light} strokeWidth={size * 0.25} />
    </>
  );
  return (
    <Over
      ref={own}
      tabIndex={0}
      role="application"
      aria-label={setting.near ? "Its far end: arrows move, enter sets" : "Where it meets the mouth: arrows move, enter sets"}
      onPointerMove={(event) => setAt(under(event))}
      onPointerUp={(event) => setting.place(under(event))}
      onClick={(event) => event.stopPropagation()}
      onKeyDown={press}
    >
      <svg viewBox={`0 0 ${width} ${height}`} aria-hidden>
        {setting.near && (
          <path
            d={`M${setting.near[0]},${setting.near[1]} L${at[0]},${at[1]}`}
            stroke={onClip.light}
            strokeWidth={size * 0.25}
            fill="none"
          />
        )}
        {setting.near && ring(setting.near)}
        {ring(at)}
      </svg>
    </Over>
  );
}
