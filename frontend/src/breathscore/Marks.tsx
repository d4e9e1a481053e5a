import type { Mark, Report } from "../api/client";
import { colour } from "../design/tokens";
import type { Lane, Layout } from "./layout";
import { bracket, stroke } from "./pencil";

const RANK = { work: 0, watch: 1, steady: 2, unreadable: 3 } as const;
const LEAST_PX = 10;
const LETTER_PX = 7.2;

/** In pencil: the worst mark of each breath in each lane; words only at the chosen breath, so that the page stays quiet. */
export function Marks({ layout, report, chosen }: { layout: Layout; report: Report; chosen: number | null }) {
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
  const from = layout.x(mark.from_s);
  const to = layout.x(mark.to_s);
  const onCount = mark.lane === "count";
  const y = onCount ? layout.countMiddle - layout.countHalf - 8 : layout.base[mark.lane as Lane] + 5;
  const beside = to + 7 + mark.words.length * LETTER_PX < layout.right;
  return (
    <g>
      <path
        d={onCount ? bracket(from, Math.max(to, from + LEAST_PX), y) : stroke(from, to, y)}
        fill="none"
        stroke={colour(mark.state === "work" ? "work" : "watch")}
        strokeWidth="2.6"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      {worded && (
        <text
          x={beside ? to + 7 : from - 7}
          textAnchor={beside ? "start" : "end"}
          y={y + (onCount ? 5 : 6)}
          className={`judged ${mark.state}`}
        >
          {mark.words}
        </text>
      )}
    </g>
  );
}
