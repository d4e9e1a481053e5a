import { onClip } from "../design/tokens";
import { pencilled, type AxisShown } from "./axis";

/** Where the instrument points: its line from the mouth on, dashed what it is held against, and the angle between, in pencil where it is marked. */
export function Axis({ axis, size }: { axis: AxisShown; size: number }) {
  const { from, far, against, marked } = axis;
  const line = `M${from.join()} L${far.join()}`;
  const angle = pencilled(axis);
  const right = far[0] > from[0];
  return (
    <g data-testid="axis" data-marked={marked ?? "no"}>
      <path d={line} stroke={onClip.dark} strokeWidth={size * 0.22} opacity="0.5" />
      <path d={line} stroke={onClip.light} strokeWidth={size * 0.12} />
      <path
        d={`M${from.join()} L${against.join()}`}
        stroke={onClip.light}
        strokeWidth={size * 0.08}
        strokeDasharray={`${size * 0.2} ${size * 0.2}`}
      />
      {marked && (
        <g fill="none" strokeLinecap="round">
          <path d={angle.path} stroke={onClip.dark} strokeWidth={size * 0.36} opacity="0.6" />
          <path d={angle.path} stroke={onClip[marked]} strokeWidth={size * 0.2} />
        </g>
      )}
      <text
        className={marked ?? undefined}
        x={angle.middle[0] + (right ? 0.4 : -0.4) * size}
        y={angle.middle[1] + size * 0.3}
        textAnchor={right ? "start" : "end"}
        fontSize={size * (marked ? 1.05 : 0.86)}
      >
        {axis.degrees.toFixed(0)}°
      </text>
    </g>
  );
}
