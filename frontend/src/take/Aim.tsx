import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from "react";
import styled from "styled-components";

import { onClip } from "../design/tokens";

/** A place in the clip, px. */
export type Place = [number, number];
const ARROWS: Record<string, Place> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
const STEPS = 160; // of an arrow key across the picture; with shift five at once
const SIZES = 60; // of what is drawn at a place, across the picture

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
type Props = {
  clip: { width_px: number; height_px: number };
  begins?: Place | undefined;
  label: string;
  waits?: string | null;
  onPlace: (at: Place, to?: Place) => void;
  onKey: (key: string) => boolean;
  children: (at: Place, size: number) => ReactNode;
};

/** Lies over the whole picture while places on it are asked for: a tap, the two ends of a drag at once, or arrow keys and enter. waits: for what; the keys are its own from then on, unless null. onKey: other keys, true = used;
 *  children: what is drawn for the place that is aimed at. */
export function Aim({ clip, begins, label, waits = "", onPlace, onKey, children }: Props) {
  const { width_px: width, height_px: height } = clip;
  const [at, setAt] = useState<Place>(() => begins ?? [width / 2, height / 2]);
  const own = useRef<HTMLDivElement>(null);
  const pressed = useRef<Place | null>(null);
  useEffect(() => {
    if (waits !== null) own.current?.focus({ preventScroll: true });
  }, [waits]);
  const inside = ([x, y]: Place): Place => [Math.min(Math.max(x, 0), width), Math.min(Math.max(y, 0), height)];
  const under = (event: PointerEvent<HTMLDivElement>): Place => {
    const box = event.currentTarget.getBoundingClientRect();
    return inside([((event.clientX - box.left) / box.width) * width, ((event.clientY - box.top) / box.height) * height]);
  };
  const press = (event: KeyboardEvent) => {
    const way = ARROWS[event.key];
    const by = (width / STEPS) * (event.shiftKey ? 5 : 1);
    if (way) setAt(inside([at[0] + way[0] * by, at[1] + way[1] * by]));
    else if (event.key === "Enter" || event.key === " ") onPlace(at);
    else if (!onKey(event.key.length === 1 ? event.key.toLowerCase() : event.key)) return;
    event.preventDefault();
  };
  const size = width / SIZES;
  const release = (event: PointerEvent<HTMLDivElement>) => {
    const [from, to] = [pressed.current, under(event)];
    pressed.current = null;
    if (from && Math.hypot(to[0] - from[0], to[1] - from[1]) > size) onPlace(from, to);
    else onPlace(to);
  };
  return (
    <Over
      ref={own}
      tabIndex={0}
      role="application"
      aria-label={label}
      onPointerDown={(event) => {
        pressed.current = under(event);
      }}
      onPointerMove={(event) => setAt(under(event))}
      onPointerUp={release}
      onClick={(event) => event.stopPropagation()}
      onKeyDown={press}
    >
      <svg viewBox={`0 0 ${width} ${height}`} aria-hidden>
        {children(at, size)}
      </svg>
    </Over>
  );
}

/** A ring at a place. */
export function Ring({ at: [x, y], size }: { at: Place; size: number }) {
  return (
    <>
      <circle cx={x} cy={y} r={size} fill="none" stroke={onClip.dark} strokeWidth={size * 0.5} />
      <circle cx={x} cy={y} r={size} fill="none" stroke={onClip.light} strokeWidth={size * 0.25} />
    </>
  );
}

/** A line between two places. */
export const Line = ({ from, to, width }: { from: Place; to: Place; width: number }) => (
  <path d={`M${from[0]},${from[1]} L${to[0]},${to[1]}`} stroke={onClip.light} strokeWidth={width} fill="none" />
);
