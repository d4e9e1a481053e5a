import styled from "styled-components";

import type { Care, CareTask } from "../api/client";
import { Action } from "../design/Action";
import { colour } from "../design/tokens";
import { Columns } from "./CareChairs";
import { dueWords, everyWords } from "./due";
import { littleWords } from "./Little";

const Row = styled(Columns)`
  padding: 7px 0;
  border-bottom: 1px solid ${colour("hair")};
  h3 {
    font-size: 18px;
    font-weight: 700;
    line-height: 1.2;
  }
  h3 + p {
    color: ${colour("soft")};
    font-size: 15px;
  }
`;
const Cell = styled.div<{ $due: boolean; $out: boolean }>`
  font-size: 15px;
  font-weight: ${(p) => (p.$due ? 700 : 400)};
  color: ${(p) => colour(p.$due && !p.$out ? "ink" : "soft")};
  svg {
    display: block;
    width: 100%;
    height: 14px;
  }
`;
const LONG = 100;
const TICK = 58; // where the interval ends on its rule, in percent of the rule

type Props = {
  task: CareTask;
  chairs: Care["chairs"];
  out: number[];
  letter: string | undefined;
  words: string;
  undo: boolean;
  main: boolean;
  disabled: boolean;
  onDo: () => void;
};

/** One task by chairs: days since on a rule with a tick at the interval; what is over it is heavier. */
export function CareRow({ task, chairs, out, letter, words, undo, main, disabled, onDo }: Props) {
  const little = littleWords(task.drops, task.rice);
  return (
    <Row $chairs={chairs.length} role="listitem">
      <div>
        <h3>{task.title}</h3>
        <p>
          {everyWords(task.every_days)}
          {task.who !== "student" && `, the ${task.who}`}
          {little && `, ${little}`}
        </p>
      </div>
      {task.rows.map((row) => {
        const due = row.applies && row.due && !row.today;
        return (
          <Cell
            key={row.student}
            $due={due}
            $out={out.includes(row.student)}
            aria-label={`${chairs.find((one) => one.id === row.student)?.name ?? ""}: ${row.today ? "done today" : dueWords(row, task.every_days, task.shown)}`}
            role="img"
          >
            {row.today ? (
              <Done at={row.last_at} />
            ) : (
              row.applies && task.every_days > 0 && <Since row={row} every={task.every_days} due={due} />
            )}
            {dueWords(row, task.every_days, task.shown)}
          </Cell>
        );
      })}
      <Action
        main={main && !undo}
        large
        letter={undo ? "Z" : letter}
        onPress={onDo}
        isDisabled={disabled || !task.rows.some((row) => row.applies)}
      >
        {words}
      </Action>
    </Row>
  );
}

function Done({ at }: { at: string | null }) {
  const time = at ? new Date(at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" }) : "";
  return <>✓ {time}</>;
}

/** Days since on a rule; never logged is a rule without a stroke. */
function Since({ row, every, due }: { row: CareTask["rows"][number]; every: number; due: boolean }) {
  const since = row.days_left === null ? 0 : every - row.days_left;
  const x = Math.min((since / every) * TICK, LONG - 2);
  return (
    <svg viewBox={`0 0 ${LONG} 14`} preserveAspectRatio="none" aria-hidden>
      <path d={`M0,7 H${LONG}`} stroke={colour("hair")} strokeWidth="1.5" />
      {x > 0 && <path d={`M0,7 H${x}`} stroke={colour(due ? "ink" : "soft")} strokeWidth={due ? 5 : 3.5} />}
      <path d={`M${TICK},1 V13`} stroke={colour("ink")} strokeWidth="1.5" />
    </svg>
  );
}
