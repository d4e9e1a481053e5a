import { useEffect, useRef, useState, type PointerEvent as PressedPointer } from "react";
import { ToggleButton } from "react-aria-components";
import styled, { css } from "styled-components";

import type { Member } from "../api/client";
import { colour, type Token } from "../design/tokens";
import { chairNames, instrumentWords } from "../shared/words";
import { lowerBy, over, sectionsOf, type Over, type Place, type Spot } from "./seats";
import { DUE_DAYS, SHOWN_DAYS, daysSince, isDue, seenWords } from "./words";

const CHAIR_PX = 80;
const CLOSE_PX = 60; // the least: of a row with more chairs than fit
const WORDS_PX = 70; // under that they stand in two lines
const APART_PX = 20; // of two sections
const FIT_PX = 820; // beside the rest, on the smallest screen at a desk
const HELD_PX = 10; // less is a tap
const BENT = "(min-width: 1101px)"; // where a row fits beside the rest; else it is straight

const Rows = styled.div`
  display: grid;
  gap: 14px;
  @media ${BENT} {
    padding-bottom: 26px; /* the ends of the nearest row */
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end; /* a long heading stands in two lines */
  gap: 10px ${APART_PX}px;
  @media ${BENT} {
    justify-content: center;
  }
`;
/** Lower than the middle of its row, where rows bend. */
const lowered = css<{ $by: number }>`
  @media ${BENT} {
    transform: translateY(${({ $by }) => $by}px);
  }
`;
const Heading = styled.h2<{ $by: number }>`
  font-size: 15px;
  font-weight: 650;
  color: ${colour("soft")};
  padding-left: 6px;
  width: min-content;
  min-width: 100%;
  line-height: 1.15;
  ${lowered}
`;
const Chairs = styled.div`
  display: flex;
  flex-wrap: wrap;
`;
const chair = css<{ $by: number; $wide: number }>`
  position: relative;
  width: ${({ $wide }) => $wide}px;
  padding: 4px 0 6px;
  border: 1.5px solid transparent;
  border-radius: 6px;
  background: none;
  font: inherit;
  color: inherit;
  text-align: center;
  ${lowered}
  b {
    display: block;
    font-weight: 650;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  small {
    display: block;
    font-size: ${({ $wide }) => ($wide < CHAIR_PX ? 12 : 13)}px;
    line-height: 1.25;
    white-space: ${({ $wide }) => ($wide < WORDS_PX ? "normal" : "nowrap")};
    color: ${colour("soft")};
  }
  small.due {
    color: ${colour("ink")};
    font-weight: 650;
  }
  .struck {
    color: ${colour("soft")};
    text-decoration: line-through;
  }
  svg {
    display: block;
    margin: 0 auto;
    overflow: visible;
  }
  .bent {
    display: none;
  }
  @media ${BENT} {
    .bent {
      display: inline;
    }
    .flat {
      display: none;
    }
  }
`;
const Chair = styled(ToggleButton)<{ $by: number; $wide: number; $movable: boolean }>`
  ${chair}
  cursor: ${({ $movable }) => ($movable ? "grab" : "pointer")};
  touch-action: ${({ $movable }) => ($movable ? "none" : "auto")};
  user-select: none;
  &[data-hovered] {
    background: ${colour("wash")};
  }
  &[data-selected] {
    border-color: ${colour("ink")};
  }
  &[data-held] {
    border-style: dashed;
    border-color: ${colour("ink")};
  }
  &[data-drop]::after {
    content: "";
    position: absolute;
    inset: -4px auto -4px -3px;
    width: 5px;
    background: ${colour("ink")};
  }
  &[data-drop="after"]::after {
    inset: -4px -3px -4px auto;
  }
`;
const Coming = styled.div<{ $by: number; $wide: number }>`
  ${chair}
  b {
    color: ${colour("soft")};
  }
`;
const Behind = styled.p`
  border: 1.5px dashed ${colour("ink")};
  border-radius: 6px;
  padding: 4px 12px;
`;
const RULE_PX = 52;

/** onMove: where the chair of a student was put down; not there where chairs stay. */
type Props = {
  rows: Place[][];
  chosen: Set<number>;
  now: Date;
  onTurn: (id: number) => void;
  onMove?: (id: number, where: Over | null) => void;
};
type Held = { id: number; x: number; y: number; where?: Over | null };

/** The band as it sits, seen from the teacher's stand: under each name how long ago the last look was, the tick at a fortnight; what a list would change is
dashed and struck. */
export function Band({ rows, chosen, now, onTurn, onMove }: Props) {
  const floor = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<Held | null>(null);
  const names = chairNames(rows.flat().map((one) => one.name));
  const nameOf = new Map(rows.flat().map((one, i) => [one.key, names[i] ?? ""]));
  const widest = Math.max(...rows.map((row) => row.length), Math.floor(FIT_PX / CHAIR_PX));
  const take = (event: PressedPointer) => {
    const id = studentOf(event.target);
    if (onMove && id !== null && event.button === 0) setHeld({ id, x: event.clientX, y: event.clientY });
  };
  useEffect(() => {
    if (!held) return;
    const under = ({ clientX: x, clientY: y }: PointerEvent) => {
      if (!floor.current || (held.where === undefined && Math.hypot(x - held.x, y - held.y) < HELD_PX)) return undefined;
      return over(spotsOf(floor.current), held.id, x, y, CHAIR_PX);
    };
    const drag = (event: PointerEvent) => {
      const where = under(event);
      if (where === undefined) return;
      if (held.where === undefined || where?.id !== held.where?.id || where?.side !== held.where?.side) setHeld({ ...held, where });
    };
    const drop = (event: PointerEvent) => {
      const where = under(event); // where it is let go: the last move may not be drawn yet
      if (where !== undefined) onMove?.(held.id, where);
      setHeld(null);
    };
    const gone = new AbortController();
    const { signal } = gone;
    window.addEventListener("pointermove", drag, { signal }); // of the page: behind all rows a hand is outside of them
    window.addEventListener("pointerup", drop, { signal });
    window.addEventListener("pointercancel", () => setHeld(null), { signal });
    return () => gone.abort();
  }, [held, onMove]);
  const moved = held?.where !== undefined ? held : null;
  return (
    <Rows ref={floor} onPointerDownCapture={take}>
      {moved?.where === null && <Behind>a row of its own behind the others</Behind>}
      {rows
        .map((row, number) => ({ row, number, sections: sectionsOf(row) }))
        .map(({ row, number, sections }) => (
          <Row key={number} role="group" aria-label={number ? `row ${number + 1}` : "row 1, the nearest"}>
            {sections.map(({ instrument, at, places }) => {
              const by = (from: number) => lowerBy(from, row.length, widest);
              const fits = Math.floor((FIT_PX - (sections.length - 1) * APART_PX) / row.length);
              const wide = Math.min(Math.max(fits, CLOSE_PX), CHAIR_PX);
              return (
                <section key={at} aria-label={instrumentWords(instrument)}>
                  <Heading $by={by(at + 0.5)}>{instrumentWords(instrument)}</Heading>
                  <Chairs>
                    {places.map((one, i) => {
                      const middle = by(at + i + 0.5);
                      const ends: Ends = [by(at + i) - middle, by(at + i + 1) - middle];
                      return one.member ? (
                        <Seated
                          key={one.key}
                          place={one}
                          member={one.member}
                          name={nameOf.get(one.key) ?? ""}
                          chosen={chosen}
                          now={now}
                          onTurn={onTurn}
                          by={middle}
                          ends={ends}
                          wide={wide}
                          movable={onMove !== undefined}
                          held={moved?.id === one.member.student.id}
                          drop={moved?.where?.id === one.member.student.id ? moved.where.side : undefined}
                        />
                      ) : (
                        <Coming key={one.key} $by={middle} $wide={wide}>
                          <ChairDrawing ink="soft" ends={ends} wide={wide} dashed />
                          <b>{nameOf.get(one.key)}</b>
                          <small>{one.will === "comes" ? "new" : one.will}</small>
                        </Coming>
                      );
                    })}
                  </Chairs>
                </section>
              );
            })}
          </Row>
        ))
        .toReversed()}
    </Rows>
  );
}

/** How much lower the floor lies at the left and at the right of a chair than below it. */
type Ends = [number, number];
type SeatedProps = {
  place: Place;
  member: Member;
  name: string;
  chosen: Set<number>;
  now: Date;
  onTurn: (id: number) => void;
  by: number;
  ends: Ends;
  wide: number;
  movable: boolean;
  held: boolean;
  drop: Over["side"] | undefined;
};

function Seated({ place, member, name, chosen, now, onTurn, by, ends, wide, movable, held, drop }: SeatedProps) {
  const { student } = member;
  const stays = place.will === "stays";
  const words = stays ? seenWords(member, now) : place.will;
  return (
    <Chair
      $by={by}
      $wide={wide}
      $movable={movable}
      data-student={student.id}
      data-held={held || undefined}
      data-drop={drop}
      isSelected={chosen.has(student.id)}
      onChange={() => !held && onTurn(student.id)}
      aria-label={`${student.name}, ${words}`}
    >
      <ChairDrawing ink={student.may_film_until === null || !stays ? "hair" : "ink"} ends={ends} wide={wide} />
      <b className={stays ? "" : "struck"}>{name}</b>
      {stays && <Since days={daysSince(member, now)} />}
      <small className={stays && isDue(member, now) ? "due" : ""}>{words}</small>
    </Chair>
  );
}

const FLOOR = 31;
type Drawn = { ink: Token; ends: Ends; wide: number; dashed?: boolean };

/** A chair on its piece of the floor, which goes on under the next. */
function ChairDrawing({ ink, ends, wide, dashed = false }: Drawn) {
  const [left, right] = ends;
  const [dash, legs] = [dashed ? "3 3" : undefined, wide / 2 - 9];
  return (
    <svg width={wide} height="34" viewBox={`0 0 ${wide} 34`} aria-hidden fill="none" stroke={colour(ink)}>
      <path d={`M${legs},1 V29 M${legs},16 h16 V29`} strokeWidth="2" strokeDasharray={dash} />
      <g stroke={colour(dashed ? "soft" : "ink")} strokeWidth="1.5" strokeDasharray={dash}>
        <path className="flat" d={`M0,${FLOOR} H${wide}`} />
        <path className="bent" d={`M0,${FLOOR + left} L${wide / 2},${FLOOR} L${wide},${FLOOR + right}`} />
      </g>
    </svg>
  );
}

function Since({ days }: { days: number | null }) {
  const at = (value: number) => (Math.min(value, SHOWN_DAYS) / SHOWN_DAYS) * RULE_PX;
  return (
    <svg width={RULE_PX} height="10" viewBox={`0 0 ${RULE_PX} 10`} aria-hidden>
      <path d={`M0,5 H${RULE_PX}`} stroke={colour("hair")} strokeWidth="1.5" />
      {days !== null && <path d={`M0,5 H${Math.max(at(days), 2)}`} stroke={colour("ink")} strokeWidth={days > DUE_DAYS ? 4 : 2} />}
      <path d={`M${at(DUE_DAYS)},1 V9`} stroke={colour("soft")} strokeWidth="1.5" />
    </svg>
  );
}

/** The student on whose chair something happens. */
export const studentOf = (target: EventTarget | null): number | null => {
  const chair = target instanceof Element ? target.closest<HTMLElement>("[data-student]") : null;
  return chair ? Number(chair.dataset.student) : null;
};

function spotsOf(floor: HTMLElement): Spot[] {
  return [...floor.querySelectorAll<HTMLElement>("[data-student]")].map((one) => {
    const { left, top, width, height } = one.getBoundingClientRect();
    return { id: Number(one.dataset.student), x: left + width / 2, y: top + height / 2 };
  });
}
