import { useState } from "react";
import styled from "styled-components";

import { useRuleChanges } from "../api/said";
import { Action } from "../design/Action";
import { colour } from "../design/tokens";
import { momentWords } from "../shared/words";

const Part = styled.section`
  padding-top: 18px;
  ol {
    list-style: none;
    padding-top: 8px;
  }
  li {
    display: grid;
    grid-template-columns: 190px minmax(0, 1fr);
    gap: 4px 16px;
    padding: 6px 0;
    border-bottom: 1px solid ${colour("hair")};
    span {
      color: ${colour("soft")};
    }
    @media (max-width: 700px) {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

/** Who changed which rules, and when: asked for, since it is seldom wanted. */
export function RuleChanges() {
  const [open, setOpen] = useState(false);
  const found = useRuleChanges(open).data;
  return (
    <Part>
      <Action aria-expanded={open} onPress={() => setOpen(!open)}>
        Who changed what, and when
      </Action>
      {open && found && found.changes.length === 0 && <p>Nothing was changed yet.</p>}
      {open && found && (
        <ol>
          {found.changes.map((one) => (
            <li key={one.made_at}>
              <span>
                {momentWords(one.made_at)}, {one.by || "somebody who has left"}
              </span>
              <span>{one.what.join("; ")}</span>
            </li>
          ))}
        </ol>
      )}
    </Part>
  );
}
