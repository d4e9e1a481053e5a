import type { Report } from "../api/client";
import { colour } from "../design/tokens";
import { LANES, LANE_WORDS, restOf, type Lane, type Layout } from "./layout";

type Props = { layout: Layout; report: Report };

/** The three lanes, in ink: shoulders thin and dashed, chest a firm line, abdomen a filled body. */
export function Traces({ layout, report }: Props) {
  return (
    <g>
      {LANES.map((lane) => (
        <g key={lane}>
          <line x1={layout.left} x2={layout.right} y1={layout.base[lane]} y2={layout.base[lane]} stroke={colour("hair")} strokeWidth="1" />
          <LaneName lane={lane} layout={layout} />
          {layout.seen[lane] ? (
            <Seen lane={lane} layout={layout} report={report} />
          ) : (
            <Unseen lane={lane} layout={layout} why={whyNot(report, lane)} />
          )}
        </g>
      ))}
    </g>
  );
}

function LaneName({ lane, layout }: { lane: Lane; layout: Layout }) {
  if (layout.narrow)
    return (
      <text className="over" x={layout.left + 2} y={layout.ceiling[lane] + 11}>
        {LANE_WORDS[lane]}
      </text>
    );
  return (
    <text className="name" x={layout.left - 12} y={layout.base[lane] - 2}>
      {LANE_WORDS[lane]}
    </text>
  );
}

/** Why a lane has no trace: it was not seen, or is not measured for this student. */
function whyNot({ exempt }: Report, lane: Lane): string {
  const spared = lane === "shoulder" && exempt?.some(({ criterion }) => criterion === "shoulders_still");
  return spared ? "not measured" : "not seen here";
}

/** Where nothing was seen there is no trace, guessed or other: a dotted line that says so. */
function Unseen({ lane, layout, why }: { lane: Lane; layout: Layout; why: string }) {
  const y = layout.base[lane] - 8;
  return (
    <g>
      <line x1={layout.left} x2={layout.right} y1={y} y2={y} stroke={colour("soft")} strokeWidth="1.4" strokeDasharray="2 4" />
      <text className="quiet" x={layout.left + 78} y={y - 5}>
        {why}
      </text>
    </g>
  );
}

function Seen({ lane, layout, report }: { lane: Lane; layout: Layout; report: Report }) {
  return (
    <>
      <Line lane={lane} layout={layout} report={report} />
      {layout.ticks[lane].map((pct) => {
        const y = layout.base[lane] - pct * layout.perPct;
        return (
          <g key={pct}>
            <line x1={layout.right + 3} x2={layout.right + 8} y1={y} y2={y} stroke={colour("soft")} />
            <text className="quiet" x={layout.right + 11} y={y + 4}>
              {pct} %
            </text>
          </g>
        );
      })}
    </>
  );
}

function Line({ lane, layout, report }: { lane: Lane; layout: Layout; report: Report }) {
  const { t_s: times } = report.trace;
  const values = report.trace[lane];
  const rest = restOf(values);
  const base = layout.base[lane];
  const shown = values.flatMap((value, i) => {
    const x = layout.x(times[i] ?? 0);
    return x < layout.left - 1 || x > layout.right + 1 ? [] : [{ x: x.toFixed(1), y: (base - (value - rest) * layout.perPct).toFixed(1) }];
  });
  const path = shown.map(({ x, y }) => `${x},${y}`).join(" L");
  if (!path) return null;
  if (lane === "abdomen")
    return <path d={`M${shown[0]!.x},${base} L${path} L${shown.at(-1)!.x},${base} Z`} fill={colour("ink")} fillOpacity="0.84" />;
  const look = lane === "chest" ? { strokeWidth: 2.4 } : { strokeWidth: 1.5, strokeDasharray: "6 4" };
  return <path d={`M${path}`} fill="none" stroke={colour("ink")} strokeLinejoin="round" {...look} />;
}
