import styled from "styled-components";

import type { Card, Check, Seat } from "../api/client";
import { useFits } from "../api/help";
import { useMe } from "../api/queries";
import { Action } from "../design/Action";
import { PHONE } from "../design/sizes";
import { colour } from "../design/tokens";
import { besidesWords, POSITIONS } from "../shared/asked";
import { setsOf } from "../breathscore/layout";
import { withUnit } from "../shared/valueWords";
import { firstName, instrumentWords } from "../shared/words";
import { partWords, saidAt, sideAt, SIDES, thenWords, type Moment } from "./counting";

const Count = styled.section`
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  text-align: center;
  min-height: 0;
  .part {
    font-size: 30px;
    font-weight: 650;
    span {
      display: block;
      font-size: 26px;
      line-height: 1.1;
    }
  }
  .number {
    font-size: min(40vh, 300px);
    font-weight: 800;
    line-height: 0.95;
  }
  .part:has(span) + .number {
    font-size: min(30vh, 240px);
  }
  .number.word {
    font-size: min(16vh, 96px);
  }
  .then {
    font-size: 18px;
    color: ${colour("soft")};
    margin-top: 10px;
  }
  h1 {
    font-size: 40px;
    font-weight: 800;
    line-height: 1.1;
  }
  .setup {
    font-size: 20px;
    color: ${colour("soft")};
    margin-top: 8px;
  }
  .hint {
    color: ${colour("ink")};
    font-weight: 650;
  }
  .setup + button {
    margin-top: 10px;
  }
  @media (max-width: 1150px) {
    .number {
      font-size: min(29vh, 230px);
    }
    .setup {
      font-size: 18px;
      margin-top: 4px;
    }
  }
  @media ${PHONE} {
    h1 {
      font-size: 28px;
    }
    .setup {
      font-size: 16px;
      margin-top: 4px;
    }
    &.counting {
      display: grid;
      grid-template-columns: minmax(0, 0.8fr) minmax(0, 1fr);
      grid-template-areas: "number part" "number dots" "number then";
      align-content: center;
      justify-items: start;
      gap: 4px 20px;
      text-align: left;
    }
    .part {
      grid-area: part;
      font-size: 26px;
      align-self: end;
    }
    .number {
      grid-area: number;
      justify-self: center;
      font-size: min(22vh, 190px);
    }
    .dots {
      grid-area: dots;
      justify-content: flex-start;
      margin-top: 6px;
    }
    .then {
      grid-area: then;
    }
  }
`;
const Dots = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 16px;
  margin-top: 18px;
  i {
    width: 18px;
    height: 18px;
    border-radius: 50%;
    border: 2px solid ${colour("ink")};
  }
  i.gone {
    background: ${colour("ink")};
  }
  i.now {
    background: ${colour("ink")};
    outline: 6px solid ${colour("ink")};
  }
`;

/** The count, as large as there is room: what to do, the number, a dot a beat, and what comes then. */
export function Counting({ moment, card, check }: { moment: Moment; card: Card; check: Check }) {
  const said = saidAt(moment, check.countin_words, card.countin_beats);
  const side = sideAt(moment.breath, card, check.contrast);
  const { part, number, of, breath, next } = moment;
  return (
    <Count aria-live="off" className="counting">
      <p className="part">
        {partWords(part, check.kind)}
        {side && <span>{side}</span>}
      </p>
      <p className={said.length > 2 ? "number word" : "number"} data-testid="count">
        {said}
      </p>
      {of !== null && of <= 12 && (
        <Dots aria-hidden className="dots">
          {Array.from({ length: Math.ceil(of) }, (_, i) => (
            <i key={i} className={dotOf(i + 1, number)} />
          ))}
        </Dots>
      )}
      <p className="then">
        {breath >= 0 && `${check.kind === "hold" ? "raise" : "breath"} ${breath + 1} of ${card.cycles}`}
        {next && `${breath >= 0 ? ", then" : "then"} ${thenWords(next.part, check.kind)}${next.beats === null ? "" : ` for ${next.beats}`}`}
      </p>
    </Count>
  );
}

function dotOf(beat: number, now: number): string {
  if (beat === now) return "now";
  return beat < now ? "gone" : "";
}

/** Whether the student films without the instrument for this once; hidden: it hid part of the breath last time. */
type Without = { pressed: boolean; hidden: boolean; turn: () => void };
/** Whether the student faces the camera; turn: to change that for this once, null where the check leaves no choice. */
type Facing = { is: boolean; turn: (() => void) | null };
type BeforeProps = {
  seat: Seat;
  set: number;
  rest_s: number;
  without: Without | null;
  facing: Facing;
  trouble: string | null;
  onRetry: () => void;
};

const CAUTIONS = {
  breath: "Light-headed? Stop, breathe normally, sit.",
  hold: "Begin with it down. Arms tired, or something hurts? Put it down.",
};

const Choices = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 8px;
  margin: 8px 0;
`;

/** Before it starts: who, how to sit, and what keeps the camera from working. */
export function Before({ seat, set, rest_s, without, facing, trouble, onRetry }: BeforeProps) {
  const cards = setsOf(seat.check);
  const card = cards[set] ?? cards[0]!;
  const hold = seat.check.kind === "hold";
  const besides = besidesWords(seat.check);
  return (
    <Count>
      <h1>{firstName(seat.student.name)}</h1>
      <p className="setup">
        {POSITIONS[seat.check.position]}, {facing.is ? "facing the camera" : `${seat.side} side to the camera`}
      </p>
      <Fits studentId={seat.student.id} />
      {cards.length > 1 && (
        <p className="setup" role="status">
          {set > 0 && `Set ${set} is filmed. `}Set {set + 1} of {cards.length}: {hold ? "up" : "in"} {card.inhale_beats},{" "}
          {hold ? "keep" : "out"} {card.exhale_beats ?? "as long as it lasts"}.
        </p>
      )}
      {without?.hidden && !without.pressed && (
        <p className="setup hint" role="status">
          Part of the breath was hidden last time: turn a little, or put the {instrumentWords(seat.student.instrument)} down.
        </p>
      )}
      <Choices>
        {without && (
          <Action letter="I" pressed={without.pressed} onPress={without.turn}>
            Without the {instrumentWords(seat.student.instrument)}
          </Action>
        )}
        {facing.turn && (
          <Action letter="F" pressed={facing.is} onPress={facing.turn}>
            From the front
          </Action>
        )}
      </Choices>
      {besides && <p className="setup">This card: {besides}.</p>}
      {seat.check.contrast !== "none" && <p className="setup">First {SIDES[seat.check.contrast].join(", on purpose; then ")}.</p>}
      <p className="setup">
        {rest_s > 0 ? `Breathe as usual for ${rest_s} s: that was enough in a row.` : CAUTIONS[hold ? "hold" : "breath"]}
      </p>
      {trouble && (
        <p className="setup" role="alert">
          {trouble}
        </p>
      )}
      {trouble && (
        <Action large onPress={onRetry}>
          Try again
        </Action>
      )}
    </Count>
  );
}

/** What of chair, stand and strap fitted this student last; a paired phone does not ask. */
function Fits({ studentId }: { studentId: number }) {
  const may = useMe().data?.may.includes("read") ?? false;
  const fits = useFits(studentId, may).data?.fits ?? [];
  if (fits.length === 0) return null;
  return (
    <p className="setup hint" data-testid="fits">
      {fits.map(({ title, value, unit }) => `${title.toLowerCase()} ${value}${withUnit(unit)}`).join(", ")}
    </p>
  );
}
