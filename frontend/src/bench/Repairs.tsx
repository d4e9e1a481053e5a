import styled from "styled-components";

import type { Care } from "../api/client";
import { useRepaired } from "../api/bench";
import { Action } from "../design/Action";
import { colour } from "../design/tokens";
import { shortDay } from "../shared/words";

const List = styled.section`
  margin-top: 22px;
  h2 {
    font-size: 18px;
    font-weight: 700;
    margin-bottom: 6px;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 14px;
    align-items: center;
    padding: 6px 0;
    border-bottom: 1px solid ${colour("hair")};
  }
  span {
    color: ${colour("soft")};
  }
`;

/** What needs somebody who repairs instruments. */
export function Repairs({ care }: { care: Care }) {
  const repaired = useRepaired();
  if (!care.repairs.length) return null;
  const name = (id: number) => care.chairs.find((one) => one.id === id)?.name ?? "";
  return (
    <List aria-label="For the repair shop">
      <h2>For the repair shop</h2>
      <ul>
        {care.repairs.map((one) => (
          <li key={one.id}>
            <b>{one.what}</b> {name(one.student)}
            <span>
              since {shortDay(one.said_at)}
              {one.done_at && `, seen to on ${shortDay(one.done_at)}`}
            </span>
            <Action onPress={() => repaired.mutate({ repair_id: one.id, done: !one.done_at })}>
              {one.done_at ? "Not yet, after all" : "Seen to"}
            </Action>
          </li>
        ))}
      </ul>
    </List>
  );
}
