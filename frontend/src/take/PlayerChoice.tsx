import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import type { Report, Take } from "../api/client";
import { useEdit, useMe } from "../api/queries";
import { colour } from "../design/tokens";

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  margin-top: 10px;
`;
const Choice = styled(ToggleButton)`
  min-width: 44px;
  height: 36px;
  border: 1.5px solid ${colour("ink")};
  background: none;
  color: inherit;
  font: inherit;
  font-weight: 650;
  cursor: pointer;
  &[data-selected] {
    background: ${colour("ink")};
    color: ${colour("ground")};
  }
`;

/** Where several people could be followed: who of them is read, the largest first. Judged anew at once. */
export function PlayerChoice({ take, report }: { take: Take; report: Report }) {
  const edit = useEdit(take.id);
  const may = useMe().data?.may.includes("overrule") ?? false;
  if (report.people < 2 || !may || !take.judged_anew) return null;
  const edits = report.edits ?? { player: null, first_inhale_s: null, turns: [], line: null };
  const chosen = edits.player ?? (report.player ? 0 : null);
  const choose = (player: number) => edit.mutate({ first_inhale_s: edits.first_inhale_s, player, turns: [], line: null });
  return (
    <Line>
      <span id="player-label">who is read</span>
      <ToggleButtonGroup
        aria-labelledby="player-label"
        selectionMode="single"
        disallowEmptySelection={chosen !== null}
        selectedKeys={chosen === null ? [] : [String(chosen)]}
        onSelectionChange={(keys) => keys.size && choose(Number([...keys][0]))}
      >
        {Array.from({ length: report.people }, (_, i) => (
          <Choice key={i} id={String(i)} aria-label={`player ${i + 1}`}>
            {i + 1}
          </Choice>
        ))}
      </ToggleButtonGroup>
      {edit.error && <span role="alert">{edit.error.message}</span>}
    </Line>
  );
}
