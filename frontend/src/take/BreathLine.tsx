import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import type { Breath, Report } from "../api/client";
import { colour } from "../design/tokens";
import { PATTERNS, amountWords } from "../shared/words";

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 16px;
  min-height: 44px;
  padding: 4px 0;
  flex-wrap: wrap;
`;
const Group = styled(ToggleButtonGroup)`
  display: flex;
`;
const Choice = styled(ToggleButton)`
  min-width: 36px;
  height: 34px;
  border: 1.5px solid ${colour("ink")};
  margin-left: -1.5px;
  background: none;
  font: inherit;
  font-weight: 650;
  color: inherit;
  cursor: pointer;
  &:first-child {
    border-radius: 6px 0 0 6px;
    margin-left: 0;
  }
  &:last-child {
    border-radius: 0 6px 6px 0;
  }
  &[data-selected] {
    background: ${colour("ink")};
    color: ${colour("ground")};
  }
`;
const Hint = styled.span`
  color: ${colour("soft")};
`;
const Numbers = styled.dl`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  font-size: 15px;
  color: ${colour("soft")};
  div {
    display: flex;
    gap: 6px;
    align-items: baseline;
  }
  dd {
    color: ${colour("ink")};
    font-weight: 650;
    font-size: 17px;
  }
`;

type Props = { breaths: Breath[]; scale: Report["scale"]; chosen: number | null; onChoose: (index: number | null) => void };

/** One breath chosen at a time, with its numbers. */
export function BreathLine({ breaths, scale, chosen, onChoose }: Props) {
  const breath = chosen === null ? undefined : breaths[chosen];
  return (
    <Line>
      <span id="breath-label">breath</span>
      <Group
        aria-labelledby="breath-label"
        selectionMode="single"
        selectedKeys={chosen === null ? [] : [String(chosen)]}
        onSelectionChange={(keys) => onChoose(keys.size ? Number([...keys][0]) : null)}
      >
        {breaths.map((b, i) => (
          <Choice key={b.inhale_start_s ?? i} id={String(i)} aria-label={`breath ${i + 1}`}>
            {i + 1}
          </Choice>
        ))}
      </Group>
      {breath ? <BreathNumbers breath={breath} scale={scale} /> : <Hint>choose one by its number, or click in the score</Hint>}
    </Line>
  );
}

function BreathNumbers({ breath, scale }: { breath: Breath; scale: Report["scale"] }) {
  const amount = (value: number) => amountWords(value, scale);
  const beats = (value: number) => value.toFixed(1);
  const measured: [string, number | null | undefined, (value: number) => string][] = [
    ["in", breath.inhale_beats, (value) => `${beats(value)} beats`],
    ["pause", breath.pause_beats, beats],
    ["out", breath.exhale_beats, beats],
    ["belly", breath.abdomen_amp, amount],
    ["chest", breath.chest_amp, amount],
    ["shoulders", breath.shoulder_rise, amount],
  ];
  return (
    <Numbers data-testid="breath-numbers">
      {measured.map(([name, value, words]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{value == null ? "–" : words(value)}</dd>
        </div>
      ))}
      <div>
        <dt>pattern</dt>
        <dd>{PATTERNS[breath.pattern] ?? breath.pattern}</dd>
      </div>
    </Numbers>
  );
}
