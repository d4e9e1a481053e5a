import { ToggleButton } from "react-aria-components";
import styled, { css } from "styled-components";

import type { Member } from "../api/client";
import { colour, type Token } from "../design/tokens";
import { chairNames, instrumentWords } from "../shared/words";
import { DUE_DAYS, SHOWN_DAYS, daysSince, isDue, sectionsOf, seenWords, type Place } from "./words";

const Sections = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 18px 26px;
`;
const Section = styled.section`
  h2 {
    font-size: 15px;
    font-weight: 650;
    color: ${colour("soft")};
  }
  > div {
    display: flex;
    flex-wrap: wrap;
  }
`;
const chair = css`
  width: 88px;
  @media (max-width: 700px) {
    width: 82px;
  }
  padding: 6px 4px 8px;
  border: 1.5px solid transparent;
  border-radius: 6px;
  background: none;
  font: inherit;
  color: inherit;
  text-align: center;
  b {
    display: block;
    font-weight: 650;
    border-top: 1.5px solid ${colour("ink")};
    padding-top: 2px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  small {
    display: block;
    font-size: 13px;
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
`;
const Chair = styled(ToggleButton)`
  ${chair}
  cursor: pointer;
  &[data-hovered] {
    background: ${colour("wash")};
  }
  &[data-selected] {
    border-color: ${colour("ink")};
  }
`;
const Coming = styled.div`
  ${chair}
  b {
    border-top-style: dashed;
    color: ${colour("soft")};
  }
`;
const WIDTH = 58;

type Props = { places: Place[]; chosen: Set<number>; now: Date; onTurn: (id: number) => void };

/** The band by sections: under each name how long ago the last look was, the tick at a fortnight; what a list would change is dashed and struck. */
export function Band({ places, chosen, now, onTurn }: Props) {
  return (
    <Sections>
      {sectionsOf(places).map(({ instrument, places: own }) => {
        const names = chairNames(own.map((one) => one.name));
        return (
          <Section key={instrument} aria-label={instrumentWords(instrument)}>
            <h2>{instrumentWords(instrument)}</h2>
            <div>
              {own.map((one, i) =>
                one.member ? (
                  <Seated key={one.key} place={one} member={one.member} name={names[i] ?? ""} chosen={chosen} now={now} onTurn={onTurn} />
                ) : (
                  <Coming key={one.key}>
                    <ChairDrawing ink="soft" dashed />
                    <b>{names[i]}</b>
                    <small>{one.will === "comes" ? "new" : one.will}</small>
                  </Coming>
                ),
              )}
            </div>
          </Section>
        );
      })}
    </Sections>
  );
}

type SeatedProps = { place: Place; member: Member; name: string; chosen: Set<number>; now: Date; onTurn: (id: number) => void };

function Seated({ place, member, name, chosen, now, onTurn }: SeatedProps) {
  const { student } = member;
  const stays = place.will === "stays";
  const words = stays ? seenWords(member, now) : place.will;
  return (
    <Chair isSelected={chosen.has(student.id)} onChange={() => onTurn(student.id)} aria-label={`${student.name}, ${words}`}>
      <ChairDrawing ink={student.may_film_until === null || !stays ? "hair" : "ink"} />
      <b className={stays ? "" : "struck"}>{name}</b>
      {stays && <Since days={daysSince(member, now)} />}
      <small className={stays && isDue(member, now) ? "due" : ""}>{words}</small>
    </Chair>
  );
}

function ChairDrawing({ ink, dashed = false }: { ink: Token; dashed?: boolean }) {
  return (
    <svg width="26" height="30" viewBox="0 0 26 30" aria-hidden>
      <path d="M5,1 V29 M5,16 H21 V29" fill="none" stroke={colour(ink)} strokeWidth="2" strokeDasharray={dashed ? "3 3" : undefined} />
    </svg>
  );
}

function Since({ days }: { days: number | null }) {
  const at = (value: number) => (Math.min(value, SHOWN_DAYS) / SHOWN_DAYS) * WIDTH;
  return (
    <svg width={WIDTH} height="10" viewBox={`0 0 ${WIDTH} 10`} aria-hidden>
      <path d={`M0,5 H${WIDTH}`} stroke={colour("hair")} strokeWidth="1.5" />
      {days !== null && <path d={`M0,5 H${Math.max(at(days), 2)}`} stroke={colour("ink")} strokeWidth={days > DUE_DAYS ? 4 : 2} />}
      <path d={`M${at(DUE_DAYS)},1 V9`} stroke={colour("soft")} strokeWidth="1.5" />
    </svg>
  );
}
