import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Care } from "../api/client";
import { KeyCap } from "../design/Action";
import { colour } from "../design/tokens";
import { chairNames } from "../shared/words";
import { Plain } from "./Plain";

export const Columns = styled.div<{ $chairs: number }>`
  display: grid;
  grid-template-columns: 210px repeat(${(p) => p.$chairs}, minmax(84px, 1fr)) 300px;
  gap: 4px 14px;
  align-items: center;
  @media (max-width: 860px) {
    grid-template-columns: repeat(auto-fill, minmax(84px, 1fr));
    > :first-child,
    > :last-child {
      grid-column: 1 / -1;
    }
  }
`;
const Line = styled(Columns)`
  margin-top: 12px;
  border-bottom: 1.5px solid ${colour("ink")};
  padding-bottom: 6px;
  > p {
    color: ${colour("soft")};
    font-size: 16px;
  }
`;
const Chair = styled(Button)<{ $out: boolean; $away: boolean }>`
  min-height: 56px;
  width: 100%;
  border: 2px solid ${(p) => (p.$out ? colour("ink") : "transparent")};
  border-radius: 6px;
  background: ${(p) => (p.$out ? colour("wash") : "transparent")};
  color: ${(p) => (p.$away ? colour("soft") : colour("ink"))};
  font: inherit;
  font-size: 17px;
  font-weight: 650;
  cursor: pointer;
  small {
    display: block;
    font-weight: 400;
    font-size: 14px;
  }
`;
const Quiet = styled(Plain)`
  font-size: 14px;
  display: block;
  margin: 0 auto;
  padding: 5px;
`;

type Props = { care: Care; out: number[]; onTurn: (student: number) => void; onPassport: (student: number) => void };

/** The section's chairs above the tasks; one that is tapped is left out of what is logged next. */
export function CareChairs({ care, out, onTurn, onPassport }: Props) {
  const names = chairNames(care.chairs.map((one) => one.name));
  return (
    <Line $chairs={care.chairs.length} role="group" aria-label="Chairs">
      <p>Parts and tasks</p>
      {care.chairs.map((one, i) => {
        const left = out.includes(one.id);
        return (
          <div key={one.id}>
            <Chair
              $out={left}
              $away={one.away}
              aria-pressed={left}
              aria-label={`${one.name}${left ? ", left out" : ""}${one.away ? ", not here" : ""}`}
              onPress={() => onTurn(one.id)}
            >
              {names[i]} {i < 9 && <KeyCap aria-hidden>{i + 1}</KeyCap>}
              {(left || one.away) && <small>{left ? "left out" : "not here"}</small>}
            </Chair>
            <Quiet onPress={() => onPassport(one.id)} aria-label={`Passport of ${one.name}'s instrument`}>
              passport
            </Quiet>
          </div>
        );
      })}
      <p>One tap logs the section. Tap a chair first to leave it out.</p>
    </Line>
  );
}
