import styled from "styled-components";

import type { Report } from "../api/client";
import { colour } from "../design/tokens";
import { ToMoment } from "./ToMoment";
import { toldOf } from "./unjudged";

const List = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  font-size: 15px;
  color: ${colour("soft")};
`;

const Label = styled.p`
  margin-top: 12px;
  font-size: 15px;
  font-weight: 650;
`;

/** Numbers without a mark: they are told, and nothing is thought of them. A tap shows the moment. */
export function Told({ report, chosen, onSeek }: { report: Report; chosen: number | null; onSeek: (t_s: number) => void }) {
  const told = toldOf(report, chosen);
  if (!told.length) return null;
  return (
    <section aria-label="Measured, not judged" data-testid="told">
      <Label>Measured, not judged</Label>
      <List>
        {told.map(({ name, value, at_s }) => (
          <li key={name}>
            {at_s === null ? (
              <>
                {name} <b>{value}</b>
              </>
            ) : (
              <ToMoment onPress={() => onSeek(at_s)}>
                <span>{name}</span>
                <b>{value}</b>
              </ToMoment>
            )}
          </li>
        ))}
      </List>
    </section>
  );
}
