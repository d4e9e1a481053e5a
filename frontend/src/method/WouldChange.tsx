import { Link } from "react-router";
import styled from "styled-components";

import type { Preview } from "../api/client";
import { Action } from "../design/Action";
import { StateMark, type State } from "../design/StateMark";
import { colour } from "../design/tokens";
import { valueWords } from "../shared/valueWords";
import { instrumentWords, shortDay } from "../shared/words";
import { changeWords, stayWords } from "./schools";

const Beside = styled.section`
  padding-top: 12px;
  h2 {
    font-size: 27px;
    font-weight: 800;
    line-height: 1.15;
    padding-bottom: 10px;
    border-bottom: 1px solid ${colour("ink")};
  }
  > p {
    color: ${colour("soft")};
    strong {
      color: ${colour("ink")};
    }
  }
`;
const Rows = styled.ul`
  list-style: none;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr) auto;
    gap: 2px 14px;
    align-items: center;
    padding: 7px 0;
    border-bottom: 1px solid ${colour("hair")};
  }
  a {
    color: inherit;
    font-weight: 700;
    text-decoration: none;
    &:hover {
      text-decoration: underline;
    }
  }
  small {
    display: block;
    font-size: 14px;
    font-weight: 400;
    color: ${colour("soft")};
  }
`;
const Marks = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 7px;
`;
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  padding-top: 14px;
`;
const SHOWN = 6;

export type Would = {
  words: [string, string];
  count: number;
  takes: number;
  overruled: number;
  changed: Preview["ways"][number]["changed"];
};

type Props = { would: Would | null; about: string; hint: boolean; may: boolean; onTake: (() => void) | null; onLeave: () => void };

/** What another way to teach would change of the stored takes, before anything is changed. would: of the way that is pointed at; hint: there are some to see. */
export function WouldChange({ would, about, hint, may, onTake, onLeave }: Props) {
  if (!would) {
    return (
      <Beside aria-label="What would change">
        <p>{about}</p>
        {hint && <p>The small number: stored takes whose verdict would change. Point at a way to see them.</p>}
      </Beside>
    );
  }
  const [before, said] = would.words;
  return (
    <Beside aria-label="What would change" aria-live="polite">
      <p>
        {before} <strong>{said}</strong>
      </p>
      <h2>{changeWords(would.count, would.takes)}</h2>
      <Rows>
        {would.changed.slice(0, SHOWN).map((take) => (
          <li key={take.take_id}>
            <span>
              <Link to={`/take/${take.take_id}`}>{take.student}</Link>
              <small>
                {instrumentWords(take.instrument)}, {shortDay(take.made_at)}
              </small>
            </span>
            <span>
              {take.flips[0]!.title}
              <small>{valueWords(take.flips[0]!)}</small>
            </span>
            <Marks>
              <Mark state={take.flips[0]!.before} />
              <span aria-label="becomes">→</span>
              <Mark state={take.flips[0]!.after} />
            </Marks>
          </li>
        ))}
      </Rows>
      <p>
        {would.count > SHOWN && `${would.count - SHOWN} more; `}
        {would.takes > 0 && stayWords(would.count, would)}
      </p>
      <Foot>
        {onTake && (
          <Action letter="J" onPress={onTake} isDisabled={!may}>
            Judge it so
          </Action>
        )}
        <Action onPress={onLeave}>Leave it</Action>
      </Foot>
    </Beside>
  );
}

function Mark({ state }: { state: State | null }) {
  return state ? <StateMark state={state} size={16} /> : <span title="not judged">not judged</span>;
}
