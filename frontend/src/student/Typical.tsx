import type { Report } from "../api/client";
import { LANES, type Lane } from "../breathscore/layout";
import { colour } from "../design/tokens";
import { strandOf, typicalOf } from "./days";

const COUNT_PX = 26;
const LANE_PX = 38;
const HALF_PX = 8;
const SIDE_PX = 4;
export const TYPICAL_PX = COUNT_PX + LANE_PX * LANES.length;

type Props = { report: Report; width: number; most: number };

/** One typical breath of a reading as it looks everywhere: its wedges, and the three lanes. most: percent of trunk that fills a lane, the same for all. */
export function Typical({ report, width, most }: Props) {
  const breath = typicalOf(report);
  if (!breath) return null;
  const x = (share: number) => SIDE_PX + Math.min(Math.max(share, 0), 1) * (width - 2 * SIDE_PX);
  const of = (t_s: number) => x((t_s - breath.from) / (breath.to - breath.from));
  const middle = COUNT_PX / 2;
  return (
    <svg width={width} height={TYPICAL_PX} viewBox={`0 0 ${width} ${TYPICAL_PX}`} aria-hidden>
      <rect x={x(0)} width={of(breath.full) - x(0)} y="0" height={TYPICAL_PX} fill={colour("wash")} />
      <path d={`M${x(0)},${middle} L${of(breath.full)},${middle - HALF_PX} V${middle + HALF_PX} Z`} fill={colour("ink")} />
      <path d={`M${of(breath.full)},${middle} H${of(breath.leave)}`} stroke={colour("ink")} strokeWidth="1.6" />
      <path
        d={`M${of(breath.leave)},${middle - HALF_PX} L${x(1)},${middle} L${of(breath.leave)},${middle + HALF_PX} Z`}
        fill={colour("ground")}
        stroke={colour("ink")}
        strokeWidth="1.3"
        strokeLinejoin="round"
      />
      {LANES.map((lane, i) => (
        <Strand key={lane} report={report} lane={lane} x={x} base={COUNT_PX + LANE_PX * (i + 1) - 3} perPct={(LANE_PX - 8) / most} />
      ))}
    </svg>
  );
}

type StrandProps = { report: Report; lane: Lane; x: (share: number) => number; base: number; perPct: number };

function Strand({ report, lane, x, base, perPct }: StrandProps) {
  const points = strandOf(report, lane).map(({ t, pct }) => `${x(t).toFixed(1)},${(base - pct * perPct).toFixed(1)}`);
  const floor = (
    <path d={`M${x(0)},${base} H${x(1)}`} stroke={colour("hair")} strokeWidth="1" strokeDasharray={points.length ? undefined : "2 4"} />
  );
  if (!points.length) return floor;
  const path = points.join(" L");
  if (lane === "abdomen")
    return (
      <>
        {floor}
        <path d={`M${x(0)},${base} L${path} L${x(1)},${base} Z`} fill={colour("ink")} fillOpacity="0.84" />
      </>
    );
  const look = lane === "chest" ? { strokeWidth: 2 } : { strokeWidth: 1.3, strokeDasharray: "5 3" };
  return (
    <>
      {floor}
      <path d={`M${path}`} fill="none" stroke={colour("ink")} strokeLinejoin="round" {...look} />
    </>
  );
}
