import { colour } from "../design/tokens";
import type { Layout } from "./layout";

const STRIKE_PX = 10;

/** Each strike of a foot that taps, under the beats it is meant to keep. */
export function Foot({ layout }: { layout: Layout }) {
  const { footMiddle: middle } = layout;
  if (middle === null) return null;
  return (
    <g data-testid="foot">
      {layout.beats.map(({ x }) => (
        <line key={x} x1={x} x2={x} y1={middle - STRIKE_PX / 2} y2={middle + STRIKE_PX / 2} stroke={colour("hair")} />
      ))}
      {layout.strikes.map((t_s) => (
        <path
          key={t_s}
          d={`M${layout.x(t_s) - 4},${middle - STRIKE_PX / 2} H${layout.x(t_s) + 4} L${layout.x(t_s)},${middle + STRIKE_PX / 2} Z`}
          fill={colour("ink")}
        />
      ))}
      {!layout.narrow && (
        <text className="name" x={layout.left - 12} y={middle + 4}>
          foot
        </text>
      )}
    </g>
  );
}
