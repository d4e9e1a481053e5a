import styled from "styled-components";

import type { Report } from "../api/client";
import { colour } from "../design/tokens";
import { toldOf } from "./unjudged";

const List = styled.dl`
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
  font-size: 15px;
  color: ${colour("soft")};
  div {
    display: flex;
    gap: 6px;
  }
  dd {
    color: ${colour("ink")};
    font-weight: 650;
  }
`;

const Label = styled.p`
  margin-top: 12px;
  font-size: 15px;
  font-weight: 650;
`;

/** Numbers without a mark: they are told, and nothing is thought of them. */
export function Told({ report, chosen }: { report: Report; chosen: number | null }) {
  const told = toldOf(report, chosen);
  if (!told.length) return null;
  return (
    <section aria-label="Measured, not judged" data-testid="told">
      <Label>Measured, not judged</Label>
      <List>
        {told.map(({ name, value }) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </List>
    </section>
  );
}
