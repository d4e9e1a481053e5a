import { useEffect, useRef, useState, type PointerEvent } from "react";
import styled from "styled-components";

import type { Lesson, Seat } from "../api/client";
import { ProgressRing, StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import { chairNames } from "../shared/words";
import { roundSeconds } from "./waiting";

const WIDTH = 1232;
const HEIGHT = 176;
const HELD_PX = 10; // less is a tap
const RULER = 128;
const CHAIR = "M0,0 V28 M0,15 H16 V28";

const Scroll = styled.div`
  @media (max-width: 860px) {
    overflow-x: auto;
    margin: 0 -24px;
    padding: 0 24px;
    > svg {
      width: 1232px; /* never smaller than it is drawn */
    }
  }
`;
const Drawing = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  text {
    fill: ${colour("ink")};
    font-size: 14px;
  }
  .quiet {
    fill: ${colour("soft")};
    font-size: 13px;
  }
  .now {
    font-size: 13px;
    font-weight: 700;
  }
  .away {
    fill: ${colour("soft")};
  }
  .chosen {
    fill: ${colour("ground")};
    font-weight: 700;
    paint-order: stroke; /* a long name reaches out of its dark field */
    stroke: ${colour("ink")};
    stroke-width: 5;
    stroke-linejoin: round;
  }
  .seconds {
    font-size: 12px;
  }
  [role="button"] {
    cursor: pointer;
  }
  [role="button"]:focus-visible {
    outline: none;
  }
  .focus {
    fill: none;
    stroke: transparent;
    stroke-width: 3;
  }
  [role="button"]:focus-visible .focus {
    stroke: ${colour("ink")};
  }
`;

/** minute: where the lesson is, null where it is not under way; sending: keys of the seats whose clip is on its way; waits: seconds until a take is read, by
its id. */
type Props = {
  lesson: Lesson;
  minute: number | null;
  chosen: Seat | undefined;
  sending: number[];
  waits: Map<string, number | null>;
  chalk: boolean;
  onChoose: (seat: Seat) => void;
  onMove: (seat: Seat, place: number) => void;
};

/** The lesson as a line of chairs over a ruler of minutes; the mark under a chair is its last verdict, on chalk only filmed or not yet. */
export function Chairs({ lesson, minute, chosen, sending, waits, chalk, onChoose, onMove }: Props) {
  const at = (minute: number) => 8 + (minute / lesson.minutes) * (WIDTH - 16);
  const first = lesson.seats[0]?.minute ?? 0;
  const last = lesson.seats.at(-1);
  const each = lesson.seats.length > 1 ? lesson.seats[1]!.minute - first : 2;
  const names = chairNames(lesson.seats.map((seat) => seat.student.name));
  const line = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<{ seat: Seat; from: number; by: number } | null>(null);
  const drag = (event: PointerEvent<SVGSVGElement>) => held && setHeld({ ...held, by: drawnX(event) - held.from });
  const drop = () => {
    if (held && Math.abs(held.by) > HELD_PX)
      onMove(held.seat, Math.round((held.seat.minute + (held.by / (WIDTH - 16)) * lesson.minutes - first) / each));
    setHeld(null);
  };
  const middle = chosen ? at(chosen.minute + each / 2) / WIDTH : 0;
  useEffect(() => {
    const shown = line.current;
    if (shown) shown.scrollLeft = middle * shown.scrollWidth - shown.clientWidth / 2; // where the line is longer than the screen
  }, [middle]);
  return (
    <Scroll ref={line}>
      <Drawing
        onPointerMove={drag}
        onPointerUp={drop}
        onPointerCancel={() => setHeld(null)}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="group"
        aria-label="Chairs in lesson order"
      >
        <Stretch from={at(0)} to={at(first)} words="seats, hands" />
        {last && <Stretch from={at(last.minute + each)} to={at(lesson.minutes)} words="together, then the tune" />}
        {lesson.seats.map((seat, i) => (
          <Chair
            key={seat.id}
            seat={seat}
            name={names[i] ?? ""}
            left_s={(seat.take && waits.get(seat.take.id)) ?? null}
            x={at(seat.minute) + (held?.seat.id === seat.id && Math.abs(held.by) > HELD_PX ? held.by : 0)}
            onHold={(event) => setHeld({ seat, from: drawnX(event), by: 0 })}
            wide={at(each) - at(0)}
            chosen={seat.id === chosen?.id}
            sent={sending.includes(seat.id)}
            chalk={chalk}
            onChoose={onChoose}
          />
        ))}
        <line x1={at(0)} x2={at(lesson.minutes)} y1={RULER} y2={RULER} stroke={colour("ink")} strokeWidth="1.5" />
        {Array.from({ length: lesson.minutes + 1 }, (_, minute) => (
          <line
            key={minute}
            x1={at(minute)}
            x2={at(minute)}
            y1={RULER}
            y2={RULER + (minute % 5 ? 5 : 13)}
            stroke={minute % 5 ? colour("hair") : colour("ink")}
            strokeWidth="1.25"
          />
        ))}
        {Array.from({ length: Math.floor(lesson.minutes / 5) + 1 }, (_, k) => (
          <text key={k} className="quiet" x={at(5 * k)} y={RULER + 29} textAnchor={anchorOf(5 * k, lesson.minutes)}>
            {5 * k} min
          </text>
        ))}
        {minute !== null && <Now x={at(minute)} right={minute > lesson.minutes / 2} />}
      </Drawing>
    </Scroll>
  );
}

/** Where a pointer is, in the drawing's own units. */
function drawnX(event: PointerEvent<SVGElement>): number {
  const drawing = event.currentTarget.ownerSVGElement ?? (event.currentTarget as unknown as SVGSVGElement);
  const { left, width } = drawing.getBoundingClientRect();
  return ((event.clientX - left) / width) * WIDTH;
}

/** Words at the ruler's ends stay inside the drawing. */
function anchorOf(minute: number, minutes: number): "start" | "middle" | "end" {
  if (minute === 0) return "start";
  return minute === minutes ? "end" : "middle";
}

/** Where the lesson is by the clock. right: the word stands at the mark's left. */
function Now({ x, right }: { x: number; right: boolean }) {
  return (
    <g>
      <line x1={x} x2={x} y1={RULER - 6} y2={HEIGHT - 4} stroke={colour("ink")} strokeWidth="4" />
      <text className="now" x={right ? x - 8 : x + 8} y={HEIGHT - 5} textAnchor={right ? "end" : "start"}>
        now
      </text>
    </g>
  );
}

function Stretch({ from, to, words }: { from: number; to: number; words: string }) {
  return (
    <g>
      <rect x={from} width={Math.max(to - from, 0)} y={RULER - 22} height="22" fill={colour("wash")} />
      <text className="quiet" x={from + 6} y={RULER - 7}>
        {words}
      </text>
    </g>
  );
}

type ChairProps = {
  seat: Seat;
  name: string;
  left_s: number | null;
  x: number;
  wide: number;
  chosen: boolean;
  sent: boolean;
  chalk: boolean;
  onChoose: (seat: Seat) => void;
  onHold: (event: PointerEvent<SVGElement>) => void;
};

function Chair({ seat, name, left_s, x, wide, chosen, sent, chalk, onChoose, onHold }: ChairProps) {
  const ink = chosen ? colour("ground") : colour(seat.take || !seat.away ? "ink" : "soft");
  const words = sent ? "clip on its way" : seatWords(seat);
  return (
    <g
      transform={`translate(${x},0)`}
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${seat.student.name}, ${words}`}
      onPointerDown={onHold}
      onClick={() => onChoose(seat)}
      onKeyDown={(event) => (event.key === "Enter" || event.key === " ") && (event.preventDefault(), onChoose(seat))}
    >
      <rect className="ring" x="-1" y="2" width={wide - 4} height={RULER - 3} rx="3" fill={chosen ? colour("ink") : "transparent"} />
      <rect className="focus" x="-5" y="0" width={wide + 4} height={RULER + 2} rx="5" />
      <text transform="translate(17,66) rotate(-52)" className={nameClass(seat, chosen)}>
        {name}
      </text>
      <path
        d={CHAIR}
        transform="translate(9,72)"
        fill="none"
        stroke={ink}
        strokeWidth="2"
        strokeDasharray={seat.away ? "3 3" : undefined}
      />
      <g transform="translate(9,106)">
        {sent ? <ProgressRing share={0.05} size={16} /> : <Mark seat={seat} chalk={chalk} onInk={chosen} />}
      </g>
      {left_s !== null && !chalk && (
        <text x="28" y="119" className={chosen ? "chosen seconds" : "seconds"}>
          {roundSeconds(left_s)} s
        </text>
      )}
    </g>
  );
}

function Mark({ seat, chalk, onInk }: { seat: Seat; chalk: boolean; onInk: boolean }) {
  const take = seat.take;
  if (!take) return null;
  const ink = onInk ? colour("ground") : colour("ink");
  if (chalk) return <path d="M1,7 L6,12 L15,2" fill="none" stroke={ink} strokeWidth="2" aria-label="filmed" />;
  if (take.state === "queued" || take.state === "reading") return <ProgressRing share={Math.max(take.progress, 0.05)} size={16} />;
  const state = take.state === "failed" ? "unreadable" : (take.headline?.state ?? "unreadable");
  return (
    <g>
      {onInk && <circle cx="8" cy="8" r="10" fill={colour("ground")} />}
      <StateMark state={state} size={16} />
    </g>
  );
}

function nameClass(seat: Seat, chosen: boolean): string {
  if (chosen) return "chosen";
  return seat.away && !seat.take ? "away" : "";
}

/** Where a chair stands, in two or three words. */
export function seatWords({ take, away }: Seat): string {
  if (take?.state === "read") return "read";
  if (take) return take.state === "failed" ? "film again" : "being read";
  if (away === "not_here") return "not here";
  return away === "not_today" ? "not today" : "not yet filmed";
}
