import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import type { Breath } from "../api/client";
import { colour } from "../design/tokens";
import { PATTERNS } from "../shared/words";

const Line = styled.div`display: flex; align-items: center; gap: 16px; min-height: 44px; padding: 4px 0; flex-wrap: wrap;`;
const Group = styled(ToggleButtonGroup)`display: flex;`;
const Choice = styled(ToggleButton)`
  min-width: 36px; height: 34px; border: 1.5px solid ${colour("ink")}; margin-left: -1.5px; background: none; font: inherit; font-weight: 650; color: inherit; cursor: pointer;
  &:first-child { border-radius: 6px 0 0 6px; margin-left: 0; } &:last-child { border-radius: 0 6px 6px 0; }
  &[data-selected] { background: ${colour("ink")}; color: ${colour("ground")}; }
`;
const Numbers = styled.dl`
  display: flex; flex-wrap: wrap; gap: 4px 20px; font-size: 15px; color: ${colour("soft")};
  div { display: flex; gap: 6px; align-items: baseline; } dd { color: ${colour("ink")}; font-weight: 650; font-size: 17px; }
`;

type Props = { breaths: Breath[]; chosen: number | null; onChoose: (index: number | null) => void };

/** One breath chosen at a time, with its numbers. */
export function BreathLine({ breaths, chosen, onChoose }: Props) {
  const breath = chosen === null ? undefined : breaths[chosen];
  return (
    <Line>
      <span id="breath-label">breath</span>
      <Group aria-labelledby="breath-label" selectionMode="single" selectedKeys={chosen === null ? [] : [String(chosen)]}
        onSelectionChange={(keys) => onChoose(keys.size ? Number([...keys][0]) : null)}>
        {breaths.map((b, i) => <Choice key={b.inhale_start_s ?? i} id={String(i)} aria-label={`breath ${i + 1}`}>{i + 1}</Choice>)}
      </Group>
      {breath ? <BreathNumbers breath={breath} /> : <span style={{ color: colour("soft") }}>choose one by its number, or click in the score</span>}
    </Line>
  );
}

function BreathNumbers({ breath }: { breath: Breath }) {
  const measured: [string, number | null | undefined, string, number][] = [
    ["in", breath.inhale_beats, "beats", 1], ["pause", breath.pause_beats, "", 1], ["out", breath.exhale_beats, "", 1],
    ["belly", breath.abdomen_amp, "%", 1], ["chest", breath.chest_amp, "%", 1], ["shoulders", breath.shoulder_rise, "%", 1],
  ];
  return (
    <Numbers data-testid="breath-numbers">
      {measured.map(([name, value, unit, places]) => (
        <div key={name}><dt>{name}</dt><dd>{value == null ? "–" : value.toFixed(places)}{value == null || !unit ? "" : ` ${unit}`}</dd></div>
      ))}
      <div><dt>pattern</dt><dd>{PATTERNS[breath.pattern] ?? breath.pattern}</dd></div>
    </Numbers>
  );
}
