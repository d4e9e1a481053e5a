import { colour } from "../design/tokens";
import type { Layout, Wedge } from "./layout";

/** Each breath a pair of wedges, filled while the air comes in, outlined while it goes out; what was asked is dashed behind them. */
export function CountLine({ layout }: { layout: Layout }) {
  const { countMiddle: middle, countHalf: half } = layout;
  return (
    <g>
      {layout.asked.map((wedge) => (
        <path
          key={wedge.from}
          d={askedPath(wedge, layout, half + 3)}
          fill="none"
          stroke={colour("soft")}
          strokeWidth="1.1"
          strokeDasharray="3 3"
        />
      ))}
      {layout.done.map(({ from, full, leave, to }) => (
        <g key={from}>
          <path d={`M${layout.x(from)},${middle} L${layout.x(full)},${middle - half} V${middle + half} Z`} fill={colour("ink")} />
          {layout.x(leave) - layout.x(full) > 2 && (
            <path d={`M${layout.x(full)},${middle} H${layout.x(leave)}`} stroke={colour("ink")} strokeWidth="2" />
          )}
          <path
            d={`M${layout.x(leave) + 1.5},${middle - half} L${layout.x(to)},${middle} L${layout.x(leave) + 1.5},${middle + half} Z`}
            fill={colour("ground")}
            stroke={colour("ink")}
            strokeWidth="1.6"
            strokeLinejoin="round"
          />
        </g>
      ))}
    </g>
  );
}

function askedPath({ from, full, leave, to }: Wedge, layout: Layout, half: number) {
  const m = layout.countMiddle;
  const { x } = layout;
  return `M${x(from)},${m} L${x(full)},${m - half} H${x(leave)} L${x(to)},${m} L${x(leave)},${m + half} H${x(full)} Z`;
}
