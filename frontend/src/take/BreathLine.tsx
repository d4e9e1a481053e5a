import { Button, ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import type { Breath, Report, State } from "../api/client";
import { BreathGlyph } from "../breathscore/BreathGlyph";
import { colour } from "../design/tokens";
import { PHONE } from "../design/sizes";
import { amountWords } from "../shared/words";

const Group = styled(ToggleButtonGroup)`
  grid-area: choose;
  display: flex;
  flex-wrap: wrap;
  @media ${PHONE} {
    border-top: 1px solid ${colour("hair")};
    padding-top: 8px;
  }
`;
const Choice = styled(ToggleButton)`
  display: flex;
  align-items: center;
  justify-content: center;
  min-width: 38px;
  height: 40px;
  padding: 0;
  border: 1.5px solid ${colour("ink")};
  margin-left: -1.5px;
  background: none;
  font: inherit;
  font-weight: 650;
  color: inherit;
  cursor: pointer;
  svg {
    display: none;
  }
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
  @media ${PHONE} {
    flex-direction: column;
    flex: 1 1 44px;
    height: 56px;
    border-color: transparent;
    svg {
      display: block;
    }
    &[data-selected] {
      background: none;
      color: inherit;
      border-color: ${colour("ink")};
      border-radius: 6px;
    }
  }
`;
const Numbers = styled.dl`
  grid-area: numbers;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 18px;
  font-size: 15px;
  line-height: 1.15; /* two lines are as high as the buttons beside them */
  color: ${colour("soft")};
  div {
    display: flex;
    gap: 6px;
    align-items: baseline;
  }
  dd {
    color: ${colour("ink")};
    font-weight: 650;
    font-size: 16px;
  }
  @media ${PHONE} {
    gap: 2px 14px;
  }
`;
/** On a phone it stands above, between the arrows. */
const Kind = styled.div`
  @media ${PHONE} {
    && {
      display: none;
    }
  }
`;
const Step = styled.div`
  grid-area: step;
  display: none;
  @media ${PHONE} {
    display: flex;
    align-items: center;
    gap: 12px;
    text-align: center;
    p {
      flex: 1;
    }
    b {
      display: block;
      font-size: 20px;
      font-weight: 750;
    }
  }
`;
const Arrow = styled(Button)`
  width: 56px;
  height: 56px;
  border: 1.5px solid ${colour("ink")};
  border-radius: 6px;
  background: none;
  color: inherit;
  font: inherit;
  font-size: 26px;
`;

type Props = {
  report: Report;
  chosen: number | null;
  onChoose: (index: number | null) => void;
  onStep: (by: number) => void;
};

/** One breath chosen at a time, with its numbers: by its number, on a phone by its wedge or by the arrows. */
export function BreathLine({ report, chosen, onChoose, onStep }: Props) {
  const { breaths, scale } = report;
  const breath = chosen === null ? undefined : breaths[chosen];
  return (
    <>
      <Group
        aria-label="Breath"
        selectionMode="single"
        selectedKeys={chosen === null ? [] : [String(chosen)]}
        onSelectionChange={(keys) => onChoose(keys.size ? Number([...keys][0]) : null)}
      >
        {breaths.map((b, i) => (
          <Choice key={b.inhale_start_s ?? i} id={String(i)} aria-label={`breath ${i + 1}`}>
            <BreathGlyph {...worstOf(report, i)} width={40} />
            {i + 1}
          </Choice>
        ))}
      </Group>
      <Step>
        <Arrow aria-label="breath before" onPress={() => onStep(-1)}>
          ‹
        </Arrow>
        <p>
          <b>{chosen === null ? `${breaths.length} breaths` : `Breath ${chosen + 1} of ${breaths.length}`}</b>
          {breath?.words}
        </p>
        <Arrow aria-label="next breath" onPress={() => onStep(1)}>
          ›
        </Arrow>
      </Step>
      {breath && <BreathNumbers breath={breath} scale={scale} />}
    </>
  );
}

/** The worst that is thought of one breath. */
function worstOf(report: Report, breath: number): { state: State; outside: boolean } {
  const own = report.verdicts.flatMap((verdict) => verdict.marks).filter((mark) => mark.breath === breath && mark.outside);
  const worst = own.find((mark) => mark.state === "work") ?? own[0];
  return { state: worst?.state ?? "steady", outside: worst !== undefined };
}

function BreathNumbers({ breath, scale }: { breath: Breath; scale: Report["scale"] }) {
  const amount = (value: number) => amountWords(value, scale);
  const beats = (value: number) => value.toFixed(1);
  const measured: [string, number | null | undefined, (value: number) => string][] = [
    ["in", breath.inhale_beats, (value) => `${beats(value)} beats`],
    ["pause", breath.pause_beats, beats],
    ["out", breath.exhale_beats, beats],
    ["shoulders", breath.shoulder_rise, amount],
    ["chest", breath.chest_amp, amount],
    ["belly", breath.abdomen_amp, amount],
  ];
  const unseen = (name: string) => (name === "shoulders" && breath.withheld?.shoulder_rise === "exempt" ? "not measured" : "not seen");
  return (
    <Numbers data-testid="breath-numbers">
      {breath.words && (
        <Kind>
          <dt>inhale</dt>
          <dd>{breath.words}</dd>
        </Kind>
      )}
      {measured.map(([name, value, words]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{value == null ? unseen(name) : words(value)}</dd>
        </div>
      ))}
    </Numbers>
  );
}
