import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import styled from "styled-components";

import { colour } from "../design/tokens";
import type { Layout } from "./layout";

/** A moment of the score that a person may move: a turn of the chosen breath, or beat one. byHand: it was moved already. */
export type Grip = {
  key: string;
  label: string;
  at: "start" | "full" | "leave" | "end" | "beat";
  t_s: number;
  least_s: number;
  most_s: number;
  byHand: boolean;
};
type Props = { layout: Layout; grips: Grip[]; onMove: (grip: Grip, t_s: number) => void; onLeave: () => void };

const Held = styled.g`
  cursor: ew-resize;
  touch-action: none;
  outline-offset: 3px;
`;
const SIZE_PX = 7;
const HIT_PX = 16;
const STEP_S = 0.02; // of an arrow key; with shift five at once

/** Handles on the count line and on the ruler: dragged, or moved by the arrow keys. onLeave: what was moved may be kept now. */
export function Grips({ layout, grips, onMove, onLeave }: Props) {
  const held = useRef(false);
  const { countMiddle: middle, countHalf: half } = layout;
  const heights: Record<Grip["at"], number> = {
    start: middle,
    full: middle - half,
    leave: middle + half,
    end: middle,
    beat: layout.top,
  };
  const inside = ({ least_s, most_s }: Grip, t_s: number) => Math.min(Math.max(t_s, least_s), most_s);
  const drag = (grip: Grip) => (event: PointerEvent<SVGGElement>) => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (held.current && box) onMove(grip, inside(grip, layout.time(event.clientX - box.left)));
  };
  const press = (grip: Grip) => (event: KeyboardEvent) => {
    const by = { ArrowRight: STEP_S, ArrowLeft: -STEP_S }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    onMove(grip, inside(grip, grip.t_s + (event.shiftKey ? 5 * by : by)));
  };
  const drop = () => {
    if (held.current) onLeave();
    held.current = false;
  };
  return grips.map((grip) => (
    <Held
      key={grip.key}
      role="slider"
      tabIndex={0}
      aria-label={grip.label}
      aria-valuemin={grip.least_s}
      aria-valuemax={grip.most_s}
      aria-valuenow={grip.t_s}
      aria-valuetext={`${grip.t_s.toFixed(2)} s${grip.byHand ? ", moved by hand" : ""}`}
      onPointerDown={(event) => {
        held.current = true;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={drag(grip)}
      onPointerUp={drop}
      onPointerCancel={drop}
      onClick={(event) => event.stopPropagation()}
      onKeyDown={press(grip)}
      onKeyUp={(event) => event.key.startsWith("Arrow") && onLeave()}
    >
      <path d={`M${layout.x(grip.t_s)},${layout.top} V${layout.bottom}`} stroke={colour("ink")} strokeWidth="1" strokeDasharray="2 3" />
      <circle cx={layout.x(grip.t_s)} cy={heights[grip.at]} r={HIT_PX} fill="transparent" />
      <circle
        cx={layout.x(grip.t_s)}
        cy={heights[grip.at]}
        r={SIZE_PX}
        fill={colour(grip.byHand ? "ink" : "ground")}
        stroke={colour("ink")}
        strokeWidth="2"
      />
    </Held>
  ));
}
