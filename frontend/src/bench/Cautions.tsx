import styled from "styled-components";

import type { BenchCard } from "../api/client";
import { colour } from "../design/tokens";

const List = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(380px, 1fr));
  gap: 10px 28px;
  font-size: 18px;
  padding: 0 24px 22px;
  li {
    border-left: 4px solid ${colour("ink")};
    padding-left: 14px;
  }
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** What can hurt, before the cases are opened. */
export function Cautions({ card }: { card: BenchCard }) {
  return (
    <List aria-label="Before we begin">
      {card.cautions
        .filter((one) => one.at === "before" || one.at === "steps")
        .map((one) => (
          <li key={one.say}>{one.say}</li>
        ))}
    </List>
  );
}
