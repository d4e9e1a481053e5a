import styled from "styled-components";

import type { Member } from "../api/client";
import { Action } from "../design/Action";
import { colour } from "../design/tokens";
import { consentRows, PURPOSES, type ConsentCell } from "./consent";
import { LettersToPrint } from "./LettersToPrint";

const Panel = styled.section`
  margin-top: 26px;
  padding-top: 10px;
  border-top: 2px solid ${colour("ink")};
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 14px;
    margin-bottom: 8px;
    h2 {
      font-size: 17px;
      font-weight: 650;
    }
    p {
      color: ${colour("soft")};
      margin-right: auto;
    }
  }
  table {
    width: 100%;
    border-collapse: collapse;
    table-layout: fixed;
  }
  th {
    text-align: left;
    font-weight: 650;
    padding: 4px 8px 4px 0;
    overflow-wrap: anywhere;
  }
  td {
    padding: 2px 8px 2px 0;
  }
  tr {
    border-bottom: 1px solid ${colour("hair")};
  }
  td p {
    font-size: 15px;
    color: ${colour("soft")};
  }
  td.soon p {
    color: ${colour("ink")};
    font-weight: 650;
  }
  svg {
    display: block;
    width: 100%;
    height: 8px;
  }
  @media (max-width: 900px) {
    td svg {
      display: none;
    }
    td,
    th {
      font-size: 14px;
    }
  }
`;
/** Consent as lines in time, a column a purpose, the upright is today; everyone alike is one row, only exceptions are listed. */
export function Consents({ members, programme, now }: { members: Member[]; programme: string; now: Date }) {
  const rows = consentRows(members, now);
  const asked = members.filter((one) => rows.some((row) => row.ask && row.ids.includes(one.student.id)));
  return (
    <Panel aria-label="Consent">
      <header>
        <h2>Consent</h2>
        <p>a line lasts as long as the family&apos;s yes; the upright is today</p>
        {asked.length > 0 && (
          <Action onPress={() => window.print()}>Print {asked.length === 1 ? "1 letter" : `${asked.length} letters`}</Action>
        )}
      </header>
      <table>
        <thead>
          <tr>
            <td />
            {PURPOSES.map(({ purpose, words }) => (
              <th key={purpose} scope="col">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.who}>
              <th scope="row">{row.who}</th>
              {row.cells.map((cell, i) => (
                <td key={PURPOSES[i]!.purpose} className={cell.soon ? "soon" : ""}>
                  <p>{cell.words}</p>
                  <Line cell={cell} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <LettersToPrint members={asked} programme={programme} />
    </Panel>
  );
}

/** How long a yes lasts, on a rule of a school year. */
function Line({ cell }: { cell: ConsentCell }) {
  const [from, to] = [100 * cell.from, 100 * cell.to];
  return (
    <svg viewBox="0 0 100 8" preserveAspectRatio="none" aria-hidden>
      {to > from && <path d={`M${from},5 H${to}`} stroke={colour("ink")} strokeWidth="3" />}
      <path d={`M${100 * cell.today},0 V8`} stroke={colour("ink")} strokeWidth="1" vectorEffect="non-scaling-stroke" />
    </svg>
  );
}
