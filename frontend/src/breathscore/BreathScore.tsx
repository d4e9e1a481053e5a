import { useId, useMemo, type MouseEvent, type RefObject } from "react";
import styled from "styled-components";

import type { Card, Mark, Report } from "../api/client";
import { colour } from "../design/tokens";
import { layoutOf, LANES, LANE_WORDS, restOf, type Lane, type Layout, type Wedge } from "./layout";
import { bracket, stroke } from "./pencil";
import { summaryOf } from "./summary";

const Drawing = styled.svg<{ $seeks: boolean }>`
  display: block;
  width: 100%;
  height: auto;
  cursor: ${(p) => (p.$seeks ? "pointer" : "default")};
  touch-action: manipulation;
  text {
    fill: ${colour("ink")};
    font-size: 13px;
  }
  .quiet {
    fill: ${colour("soft")};
    font-size: 12px;
  }
  .name {
    font-weight: 650;
    text-anchor: end;
  }
  .judged {
    fill: ${colour("watch")};
    font-weight: 650;
    paint-order: stroke;
    stroke: ${colour("ground")};
    stroke-width: 4;
  }
  .judged.work {
    fill: ${colour("work")};
  }
`;

type Props = {
  report: Report;
  card: Card | null;
  width: number;
  height: number;
  chosen?: number | null;
  onSeek?: (t_s: number) => void;
  playhead?: RefObject<SVGGElement | null>;
  pencil?: boolean;
};

/** Count line and three lanes over the counted bars. The same drawing everywhere; ink is what was seen, pencil what is thought of it. */
export function BreathScore({ report, card, width, height, chosen = null, onSeek, playhead, pencil = true }: Props) {
  const titleId = useId();
  const layout = useMemo(() => layoutOf(report, card, width, height), [report, card, width, height]);
  const seek = (event: MouseEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    onSeek?.(layout.time(((event.clientX - box.left) / box.width) * width));
  };
  return (
    <figure>
      <Drawing
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-labelledby={titleId}
        $seeks={onSeek !== undefined}
        onClick={onSeek && seek}
        data-testid="breath-score"
      >
        <title id={titleId}>{summaryOf(report)}</title>
        <Washes layout={layout} />
        <Bars layout={layout} />
        <CountLine layout={layout} />
        {LANES.map((lane) => (
          <Trace key={lane} lane={lane} layout={layout} report={report} />
        ))}
        {pencil && <Pencil layout={layout} report={report} chosen={chosen} />}
        {chosen !== null && <Chosen layout={layout} wedge={layout.done[chosen]} />}
        {playhead && <Playhead layout={layout} at={playhead} />}
      </Drawing>
      <BreathTable report={report} />
    </figure>
  );
}

/** How far the playhead is moved for a time: laid out once, asked at every picture. */
export function playheadOf(report: Report, width: number): (t_s: number) => number {
  return layoutOf(report, null, width, 200).x;
}

function Washes({ layout }: { layout: Layout }) {
  return (
    <g>
      {layout.washes.map(({ from, to }) => (
        <rect
          key={from}
          x={layout.x(from)}
          width={Math.max(layout.x(to) - layout.x(from), 0)}
          y={layout.top}
          height={layout.bottom - layout.top}
          fill={colour("wash")}
        />
      ))}
    </g>
  );
}

function Bars({ layout }: { layout: Layout }) {
  const firstBar = layout.beats.find((beat) => beat.bar);
  return (
    <g>
      {firstBar && firstBar.label === "1" && firstBar.x - layout.left > 54 && (
        <text className="quiet" x={layout.left + 12} y={layout.top - 10}>
          count-in
        </text>
      )}
      {layout.beats.map((beat) => (
        <line
          key={beat.x}
          x1={beat.x}
          x2={beat.x}
          y1={layout.top - (beat.bar ? 6 : 0)}
          y2={beat.bar ? layout.bottom : layout.top + 8}
          stroke={beat.bar ? colour("soft") : colour("hair")}
          strokeWidth="1"
        />
      ))}
      {layout.beats
        .filter((beat) => beat.label)
        .map((beat) => (
          <text key={beat.x} className="quiet" x={beat.x + 4} y={layout.top - 10}>
            {beat.label}
          </text>
        ))}
      <line x1={layout.left} x2={layout.left} y1={layout.top} y2={layout.bottom} stroke={colour("soft")} strokeWidth="1" />
      <text className="name" x={layout.left - 12} y={layout.countMiddle + 4}>
        count
      </text>
    </g>
  );
}

function CountLine({ layout }: { layout: Layout }) {
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

function Trace({ lane, layout, report }: { lane: Lane; layout: Layout; report: Report }) {
  const base = layout.base[lane];
  return (
    <g>
      <line x1={layout.left} x2={layout.right} y1={base} y2={base} stroke={colour("hair")} strokeWidth="1" />
      <text className="name" x={layout.left - 12} y={base - 2}>
        {LANE_WORDS[lane]}
      </text>
      {!layout.seen[lane] && (
        <text className="quiet" x={layout.left + 10} y={base - 8}>
          not readable here
        </text>
      )}
      {layout.seen[lane] && <Line lane={lane} layout={layout} report={report} />}
      {layout.seen[lane] &&
        layout.ticks[lane].map((pct) => (
          <g key={pct}>
            <line
              x1={layout.right + 6}
              x2={layout.right + 11}
              y1={base - pct * layout.perPct}
              y2={base - pct * layout.perPct}
              stroke={colour("soft")}
            />
            <text className="quiet" x={layout.right + 15} y={base - pct * layout.perPct + 4}>
              {pct} %
            </text>
          </g>
        ))}
    </g>
  );
}

function Line({ lane, layout, report }: { lane: Lane; layout: Layout; report: Report }) {
  const values = report.trace[lane];
  const rest = restOf(values);
  const points = values
    .map(
      (value, i) => `${layout.x(report.trace.t_s[i] ?? 0).toFixed(1)},${(layout.base[lane] - (value - rest) * layout.perPct).toFixed(1)}`,
    )
    .join(" L");
  if (lane === "abdomen")
    return (
      <path
        d={`M${layout.left},${layout.base[lane]} L${points} L${layout.x(report.trace.t_s.at(-1) ?? 0)},${layout.base[lane]} Z`}
        fill={colour("ink")}
        fillOpacity="0.84"
      />
    );
  const look = lane === "chest" ? { strokeWidth: 2.4 } : { strokeWidth: 1.5, strokeDasharray: "6 4" };
  return <path d={`M${points}`} fill="none" stroke={colour("ink")} strokeLinejoin="round" {...look} />;
}

const RANK = { work: 0, watch: 1, steady: 2, unreadable: 3 } as const;

/** The worst mark of each breath in each lane; words only at the chosen breath, so that the page stays quiet. */
function Pencil({ layout, report, chosen }: { layout: Layout; report: Report; chosen: number | null }) {
  const worst = new Map<string, Mark>();
  for (const verdict of report.verdicts)
    for (const mark of verdict.marks) {
      if (!mark.outside) continue; // an interval that only reaches over a limit is no fault to draw
      const key = `${mark.breath} ${mark.lane}`;
      const other = worst.get(key);
      if (!other || RANK[mark.state] < RANK[other.state]) worst.set(key, mark);
    }
  return (
    <g>
      {[...worst.entries()].map(([key, mark]) => (
        <Judged key={key} mark={mark} layout={layout} worded={mark.breath === chosen} />
      ))}
    </g>
  );
}

function Judged({ mark, layout, worded }: { mark: Mark; layout: Layout; worded: boolean }) {
  const ink = colour(mark.state === "work" ? "work" : "watch");
  const from = layout.x(mark.from_s);
  const to = layout.x(mark.to_s);
  const onCount = mark.lane === "count";
  const y = onCount ? layout.countMiddle - layout.countHalf - 8 : layout.base[mark.lane as Lane] + 5;
  return (
    <g>
      <path
        d={onCount ? bracket(from, Math.max(to, from + 10), y) : stroke(from, to, y)}
        fill="none"
        stroke={ink}
        strokeWidth="2.6"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      {worded && (
        <text x={to + 7} y={onCount ? y + 5 : y + 6} className={`judged ${mark.state}`}>
          {mark.words}
        </text>
      )}
    </g>
  );
}

function Chosen({ layout, wedge }: { layout: Layout; wedge: Wedge | undefined }) {
  if (!wedge) return null;
  const from = layout.x(wedge.from) - 5;
  const to = layout.x(wedge.to) + 5;
  return (
    <path
      d={`M${from},${layout.bottom + 4} V${layout.top - 3} H${to} V${layout.bottom + 4} Z`}
      fill="none"
      stroke={colour("ink")}
      strokeWidth="1.8"
      strokeLinejoin="round"
    />
  );
}

function Playhead({ layout, at }: { layout: Layout; at: RefObject<SVGGElement | null> }) {
  return (
    <g ref={at} data-testid="playhead" transform={`translate(${layout.x(0)},0)`}>
      <line x1="0" x2="0" y1={layout.top - 4} y2={layout.bottom} stroke={colour("ink")} strokeWidth="2.4" />
      <path d={`M-7,${layout.top - 14} H7 L0,${layout.top - 3} Z`} fill={colour("ink")} />
    </g>
  );
}

const shown = (value: number | null | undefined, digits = 1) => (value == null ? "not readable" : value.toFixed(digits));

/** The score as a table, for those who hear it. */
function BreathTable({ report }: { report: Report }) {
  return (
    <div className="unseen">
      <table>
        <caption>Breaths, lengths in beats, movement in percent of the trunk</caption>
        <thead>
          <tr>
            <th>breath</th>
            <th>starts, s</th>
            <th>in</th>
            <th>pause</th>
            <th>out</th>
            <th>abdomen</th>
            <th>chest</th>
            <th>shoulders</th>
          </tr>
        </thead>
        <tbody>
          {report.breaths.map((b, i) => (
            <tr key={b.inhale_start_s ?? i}>
              <th>{i + 1}</th>
              <td>{shown(b.inhale_start_s)}</td>
              <td>{shown(b.inhale_beats)}</td>
              <td>{shown(b.pause_beats)}</td>
              <td>{shown(b.exhale_beats)}</td>
              <td>{shown(b.abdomen_amp)}</td>
              <td>{shown(b.chest_amp)}</td>
              <td>{shown(b.shoulder_rise)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
