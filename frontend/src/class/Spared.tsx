import styled from "styled-components";

import type { ExemptionChange, JudgedRow, Member } from "../api/client";
import { useChangeExempt, useJudgedRows } from "../api/queries";
import { useExemptChanges } from "../api/said";
import { Action } from "../design/Action";
import { ChoiceLine, Said } from "../design/Fields";
import { colour } from "../design/tokens";
import { firstName } from "../shared/words";
import { changeWords, leftOut, toLeaveOut } from "./spared";

const Panel = styled.section`
  display: grid;
  gap: 12px;
  ul {
    list-style: none;
    border-top: 1px solid ${colour("hair")};
  }
  ol {
    list-style: none;
    color: ${colour("soft")};
    font-size: 15px;
  }
  ul li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 4px 12px;
    padding: 4px 0;
    border-bottom: 1px solid ${colour("hair")};
    font-weight: 650;
  }
`;
const NOTHING: JudgedRow[] = [];
const NEVER: ExemptionChange[] = [];

/** What is neither measured nor counted for one student: on the teacher's own page, and nowhere the class can see. */
export function Spared({ member, onDone }: { member: Member; onDone: () => void }) {
  const rows = useJudgedRows().data ?? NOTHING;
  const change = useChangeExempt();
  const { id, name, exempt } = member.student;
  const put = (now: string[]) => change.mutate({ id, exempt: now });
  const out = leftOut(rows, exempt);
  const changes = useExemptChanges(id).data ?? NEVER;
  return (
    <Panel aria-label={`Not measured for ${name}`}>
      <h2>Not measured for {firstName(name)}</h2>
      <p>
        Neither measured nor counted, in the readings that are there and in those to come. It stands on the take, and nowhere the class can
        see. Why is not asked, and not kept.
      </p>
      {out.length > 0 && (
        <ul>
          {out.map(({ criterion, title }) => (
            <li key={criterion}>
              {title}
              <Action
                aria-label={`Measure ${title} again`}
                isDisabled={change.isPending}
                onPress={() => put(exempt.filter((one) => one !== criterion))}
              >
                Measure it again
              </Action>
            </li>
          ))}
        </ul>
      )}
      {rows.length > 0 && (
        <ChoiceLine
          label="Leave out"
          value=""
          options={toLeaveOut(rows, exempt)}
          onChange={(row) => row && put([...exempt, row])}
          isDisabled={change.isPending} // each holds the whole list: the next waits until this one is in it
        />
      )}
      {change.error && <Said role="alert">{change.error.message}</Said>}
      {changes.length > 0 && (
        <ol aria-label="Who changed it, and when">
          {changes.map((one) => (
            <li key={`${one.made_at} ${one.criterion}`}>{changeWords(one, rows)}</li>
          ))}
        </ol>
      )}
      <Action main large autoFocus onPress={onDone}>
        Good
      </Action>
    </Panel>
  );
}
