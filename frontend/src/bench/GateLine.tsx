import styled from "styled-components";

import type { Rung } from "../api/client";
import { colour } from "../design/tokens";
import { Trace } from "./outcomes";
import { gateWords } from "./rungs";

const Box = styled.section`
  h2 {
    font-size: 17px;
    font-weight: 700;
    margin-bottom: 6px;
    span {
      color: ${colour("soft")};
      font-weight: 400;
      margin-left: 12px;
    }
  }
  > div {
    display: flex;
    align-items: center;
    gap: 18px;
    flex-wrap: wrap;
  }
  svg.gate {
    fill: none;
    stroke: ${colour("ink")};
    stroke-width: 3;
  }
`;
const Row = styled.ol`
  display: flex;
  max-width: 100%;
  overflow-x: auto; /* nine tries are wider than a phone */
`;
type Framed = { $counts: boolean; $first: boolean; $last: boolean };
/** The frame goes round all tries that count: above and below each, at the sides of the first and the last. */
const sides = ({ $counts, $first, $last }: Framed) => ($counts ? `2px ${$last ? 2 : 0}px 2px ${$first ? 2 : 0}px` : "2px 0");
const One = styled.li<Framed>`
  display: grid;
  justify-items: center;
  padding: 5px 7px 3px;
  font-size: 14px;
  color: ${(p) => (p.$counts ? colour("ink") : colour("soft"))};
  border: solid ${(p) => (p.$counts ? colour("ink") : "transparent")};
  border-width: ${(p) => sides(p)};
  min-width: 74px;
  min-height: 62px;
  i {
    width: 46px;
    height: 30px;
    border: 1.5px dashed ${colour("soft")};
    border-radius: 5px;
  }
`;
const SHOWN = 9;

/** Tries in a row with a frame round those that count; each good one draws a bar of the gate back. */
export function GateLine({ rung }: { rung: Rung }) {
  const { gate, tries } = rung;
  const words = gateWords(rung);
  const shown = tries.slice(-SHOWN);
  const from = Math.max(0, shown.length - gate.of);
  const first = tries.length - shown.length + 1;
  const shut = gate.opened ? 0 : Math.max(gate.needs - gate.good, 0);
  return (
    <Box aria-label="Tries">
      <h2>
        {words.rule}
        <span>{words.now}</span>
      </h2>
      <div>
        <Row aria-label={`${tries.length} tries, ${gate.good} good of the last ${gate.of}`}>
          {shown.map((one, i) => (
            <One key={one.id} $counts={i >= from} $first={i === from} $last={i === shown.length - 1}>
              <span className="unseen">{one.outcome.replace("_", " ")}</span>
              <Trace outcome={one.outcome} />
              {first + i}
            </One>
          ))}
          <One $counts={false} $first={false} $last={false} aria-hidden>
            <i />
            {tries.length + 1}
          </One>
        </Row>
        {gate.stands && (
          <svg
            className="gate"
            width="76"
            height="66"
            viewBox="0 0 76 66"
            role="img"
            aria-label={shut ? `the gate has ${shut} bars left` : "the gate is open"}
          >
            <path d="M4,2 V64 M72,2 V64" />
            {Array.from({ length: gate.needs }, (_, i) => (
              <path key={i} strokeWidth="2" d={i < shut ? `M6,${52 - 18 * i} H70` : `M6,${52 - 18 * i} h14 M56,${52 - 18 * i} h14`} />
            ))}
          </svg>
        )}
      </div>
    </Box>
  );
}
