import styled from "styled-components";

import type { Section } from "../api/client";
import { colour } from "../design/tokens";

const Line = styled.svg`
  display: block;
  width: 100%;
  height: 18px;
  stroke: ${colour("hair")};
  stroke-width: 2;
  .done {
    stroke: ${colour("ink")};
    stroke-width: 5;
  }
  .tick {
    stroke: ${colour("soft")};
    stroke-width: 1.5;
  }
`;
const WIDE = 400;

/** How far a section is, as a rule with a tick a step; nothing where it has not begun. */
export function Progress({ section }: { section: Section }) {
  const run = section.runs.at(-1);
  if (!run) return <span />;
  const at = (step: number) => (step / run.steps.length) * (WIDE - 4) + 2;
  return (
    <Line viewBox={`0 0 ${WIDE} 18`} preserveAspectRatio="none" aria-hidden>
      <path d={`M2,9 H${WIDE - 2}`} />
      {run.step > 0 && <path className="done" d={`M2,9 H${at(run.step)}`} />}
      {run.steps.map((key, i) => (
        <path key={key} className="tick" d={`M${at(i + 1)},3 V15`} />
      ))}
    </Line>
  );
}
