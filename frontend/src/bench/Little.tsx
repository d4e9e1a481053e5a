import styled from "styled-components";

import { colour } from "../design/tokens";

const Line = styled.p`
  display: flex;
  align-items: center;
  gap: 10px;
  font-size: 17px;
  svg {
    fill: none;
    stroke: ${colour("ink")};
    stroke-width: 2;
  }
`;
const DROP = "M12,3 C5,14 5,22 12,23 C19,22 19,14 12,3 Z";

/** How little, drawn: drops of oil, grains of rice of grease. */
export function Little({ drops, rice }: { drops: number; rice: number }) {
  if (!drops && !rice) return null;
  return (
    <Line>
      <svg width={24 * drops + 42 * rice} height="26" aria-hidden>
        {Array.from({ length: drops }, (_, i) => (
          <path key={i} d={DROP} transform={`translate(${24 * i},0)`} />
        ))}
        {Array.from({ length: rice }, (_, i) => (
          <ellipse key={i} cx={24 * drops + 20 + 42 * i} cy="13" rx="17" ry="6" transform={`rotate(-18 ${24 * drops + 20 + 42 * i} 13)`} />
        ))}
      </svg>
      <b>{littleWords(drops, rice)}</b>
    </Line>
  );
}

export function littleWords(drops: number, rice: number): string {
  if (drops) return `${drops} drops`;
  return rice ? "as much as a grain of rice" : "";
}
