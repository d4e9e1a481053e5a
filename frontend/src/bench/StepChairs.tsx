import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Run, Section } from "../api/client";
import { KeyCap } from "../design/Action";
import { colour } from "../design/tokens";
import { chairNames } from "../shared/words";
import { clock } from "./way";

const Floor = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 260px;
  gap: 24px;
  align-items: center;
  > p {
    font-size: 17px;
    color: ${colour("soft")};
  }
  > p b {
    color: ${colour("ink")};
    font-weight: 400;
  }
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Line = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
`;
const Chair = styled(Button)<{ $help: boolean; $away: boolean }>`
  flex: 1 1 100px;
  min-width: 100px;
  min-height: 100px;
  max-width: 190px;
  padding: 8px 6px 6px;
  border: 2px solid ${(p) => (p.$help ? colour("ink") : "transparent")};
  border-radius: 6px;
  background: ${(p) => (p.$help ? colour("wash") : "transparent")};
  color: ${(p) => (p.$away ? colour("soft") : colour("ink"))};
  font: inherit;
  font-size: 18px;
  font-weight: 650;
  cursor: pointer;
  display: grid;
  justify-items: center;
  align-content: start;
  gap: 4px;
  svg {
    fill: none;
    stroke: currentColor;
    stroke-width: 2.2;
  }
  svg .floor {
    stroke: ${colour("hair")};
    stroke-width: 1.5;
  }
  small {
    font-size: 15px;
    font-weight: 400;
  }
  .name {
    display: flex;
    gap: 7px;
    align-items: center;
  }
`;

type Props = { section: Section; run: Run; now: number; marking: boolean; onChair: (student: number) => void };

/** The section on its line of floor. */
export function StepChairs({ section, run, now, marking, onChair }: Props) {
  const names = chairNames(section.chairs.map((one) => one.name));
  const here = section.chairs.filter((one) => !run.away.includes(one.id));
  const helped = new Set([...run.helped, ...run.helping.map((one) => one.student)]);
  return (
    <Floor>
      <Line aria-label="Chairs">
        {section.chairs.map((one, i) => {
          const help = run.helping.find((waiting) => waiting.student === one.id);
          const away = run.away.includes(one.id);
          const words = chairWords(Boolean(help), away);
          return (
            <li key={one.id}>
              <Chair
                $help={Boolean(help)}
                $away={away}
                data-space-free
                aria-pressed={Boolean(help)}
                aria-label={`${one.name}${words && `, ${words}`}`}
                onPress={() => onChair(one.id)}
              >
                <Seat help={Boolean(help)} away={away} />
                <span className="name">
                  {i < 9 && <KeyCap aria-hidden>{i + 1}</KeyCap>}
                  {names[i]}
                </span>
                {words && <small>{help ? `help comes, ${clock(Math.max(now - Date.parse(help.since), 0) / 1000)}` : words}</small>}
              </Chair>
            </li>
          );
        })}
      </Line>
      <p>
        {marking ? <b>Tap the chair that is empty today.</b> : <b>Tap only the chair that needs a hand.</b>} {here.length - helped.size}{" "}
        together
        {helped.size > 0 && `, ${helped.size} with help`}. Tap again when it is right.
      </p>
    </Floor>
  );
}

function chairWords(help: boolean, away: boolean): string {
  if (away) return "not here";
  return help ? "help comes" : "";
}

/** A chair; a second one faces it where help comes, and one that is empty is dashed. */
function Seat({ help, away }: { help: boolean; away: boolean }) {
  return (
    <svg width="84" height="42" viewBox="0 0 84 42" aria-hidden>
      <path className="floor" d="M0,41 H84" />
      <path
        d={help ? "M16,2 V40 M16,22 H36 V40 M68,2 V40 M68,22 H48 V40" : "M30,2 V40 M30,22 H50 V40"}
        strokeDasharray={away ? "4 4" : undefined}
      />
    </svg>
  );
}
