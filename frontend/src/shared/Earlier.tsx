import { Link } from "react-router";
import styled from "styled-components";

import type { Earlier } from "../api/client";
import { STATE_WORDS, StateMark } from "../design/StateMark";
import { dayWords } from "./words";

const Days = styled.span`
  display: inline-flex;
  gap: 3px;
  align-items: center;
  vertical-align: middle;
  margin-left: 10px;
  a,
  > span {
    display: inline-flex;
    align-items: center;
    justify-content: center;
    width: 18px;
    height: 19px;
  }
  a {
    width: 24px; /* apart enough for a pointer */
  }
`;
const SIZE_PX = 12;

/** What earlier days came to, oldest first; led: each mark leads to that day's take. */
export function EarlierDays({ marks, led = false }: Pick<Earlier, "marks"> & { led?: boolean }) {
  if (!marks.length) return null;
  return (
    <Days>
      before
      {marks.map(({ take_id, day, state }) => {
        const words = `${dayWords(day)}: ${STATE_WORDS[state]}`;
        return led ? (
          <Link key={take_id} to={`/take/${take_id}`} title={words} aria-label={words}>
            <StateMark state={state} size={SIZE_PX} />
          </Link>
        ) : (
          <span key={take_id} title={words}>
            <StateMark state={state} size={SIZE_PX} />
          </span>
        );
      })}
    </Days>
  );
}
