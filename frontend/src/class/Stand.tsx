import styled from "styled-components";

import { colour } from "../design/tokens";
import { DUE_DAYS } from "./words";

const Line = styled.div`
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 4px 16px;
  align-items: center;
  font-size: 14px;
  color: ${colour("soft")};
  span {
    display: flex;
    gap: 10px;
    align-items: center;
  }
  span:last-child {
    justify-content: flex-end;
  }
  @media (max-width: 1100px) {
    grid-template-columns: 1fr;
    span:nth-child(2),
    span:last-child {
      display: none;
    }
  }
`;

/** Where the teacher stands, what the strokes under the names are, and how chairs are chosen. */
export function Stand() {
  return (
    <Line>
      <span>
        <svg width="56" height="10" viewBox="0 0 56 10" aria-hidden stroke={colour("soft")}>
          <path d="M0,5 H40" strokeWidth="4" stroke={colour("ink")} />
          <path d="M40,5 H56" strokeWidth="1.5" stroke={colour("hair")} />
          <path d="M28,1 V9" strokeWidth="1.5" />
        </svg>
        days since the last look; the tick is {DUE_DAYS} days
      </span>
      <span>
        <svg width="36" height="34" viewBox="0 0 36 34" aria-hidden fill="none" stroke={colour("ink")} strokeWidth="2">
          <path d="M5,2 H31 L34,14 H2 Z M18,14 V26 M10,33 L18,26 L26,33" />
        </svg>
        you stand here
      </span>
      <span>Space chooses a chair, S its section</span>
    </Line>
  );
}
