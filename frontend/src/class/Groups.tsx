import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Group } from "../api/client";
import { colour } from "../design/tokens";

const Line = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-bottom: 12px;
`;
const Name = styled(Button)`
  min-height: 44px;
  padding: 0 2px;
  border: 0;
  border-bottom: 3px solid transparent;
  background: none;
  font: inherit;
  font-weight: 650;
  color: ${colour("soft")};
  cursor: pointer;
  &[aria-pressed="true"] {
    color: ${colour("ink")};
    border-bottom-color: ${colour("ink")};
  }
`;
type Shown = { groups: Group[]; shown: number | null; onShow: (id: number | null) => void };

/** Which band is meant: everybody, or one of the groups. */
export function Groups({ groups, shown, onShow }: Shown) {
  if (!groups.length) return null;
  return (
    <Line aria-label="Groups">
      <Name aria-pressed={shown === null} onPress={() => onShow(null)}>
        Everybody
      </Name>
      {groups.map(({ id, name }) => (
        <Name key={id} aria-pressed={shown === id} onPress={() => onShow(id)}>
          {name}
        </Name>
      ))}
    </Line>
  );
}
