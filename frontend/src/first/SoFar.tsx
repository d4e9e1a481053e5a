import type { ReactNode } from "react";
import styled from "styled-components";

import { useClass, useMe } from "../api/queries";
import { colour } from "../design/tokens";
import { INSTRUMENTS } from "../shared/words";

const Column = styled.aside`
  display: grid;
  gap: 14px;
  align-content: start;
  section {
    display: grid;
    grid-template-columns: 26px minmax(0, 1fr);
    padding-bottom: 14px;
    border-bottom: 1px solid ${colour("hair")};
  }
  h2 {
    font-size: 16px;
    font-weight: 400;
    color: ${colour("soft")};
  }
  > section > div > b {
    font-size: 18px;
    font-weight: 800;
    line-height: 1.2;
  }
  table {
    margin-top: 10px;
    width: 100%;
  }
  th {
    font-weight: 400;
    text-align: left;
    white-space: nowrap;
    padding-right: 10px;
  }
  td:last-child {
    text-align: right;
    font-weight: 700;
  }
  p {
    margin-top: 8px;
    font-size: 15px;
  }
  svg {
    display: block;
  }
`;
const CHAIR_PX = 16;
const MOST_CHAIRS = 9;

/** What is done of the first run: the programme, who runs it, and the class as it was read, by instrument. */
export function SoFar() {
  const me = useMe();
  const found = useClass();
  if (!me.data || !found.data) return null;
  const { members } = found.data;
  return (
    <Column aria-label="What is done">
      <Done what="Your programme" words={me.data.programme?.name ?? ""} />
      <Done what="First account" words={me.data.name ?? ""} />
      {members.length > 0 && (
        <Done what="Class list" words={`${members.length} ${members.length === 1 ? "student" : "students"}`}>
          <table>
            <tbody>
              {Object.entries(INSTRUMENTS)
                .map(([instrument, words]) => ({
                  instrument,
                  words,
                  count: members.filter((one) => one.student.instrument === instrument).length,
                }))
                .filter(({ count }) => count > 0)
                .map(({ instrument, words, count }) => (
                  <tr key={instrument}>
                    <th scope="row">{instrument === "none" ? "not yet said" : words}</th>
                    <td>
                      <Chairs count={count} />
                    </td>
                    <td>{count}</td>
                  </tr>
                ))}
            </tbody>
          </table>
          <p>May be filmed: {members.filter((one) => one.student.may_film_until !== null).length}; the letter goes out first.</p>
        </Done>
      )}
    </Column>
  );
}

function Done({ what, words, children }: { what: string; words: string; children?: ReactNode }) {
  return (
    <section>
      <svg width="18" height="18" aria-hidden="true">
        <path d="M2,9 L7,14 L16,3" fill="none" stroke={colour("ink")} strokeWidth="2.5" />
      </svg>
      <div>
        <h2>{what}</h2>
        <b>{words}</b>
        {children}
      </div>
    </section>
  );
}

function Chairs({ count }: { count: number }) {
  const drawn = Math.min(count, MOST_CHAIRS);
  return (
    <svg width={drawn * CHAIR_PX} height="18" aria-hidden="true">
      {Array.from({ length: drawn }, (_, i) => (
        <path
          key={i}
          d={`M${i * CHAIR_PX + 2},2 V16 M${i * CHAIR_PX + 2},10 H${i * CHAIR_PX + 11} V16`}
          fill="none"
          stroke={colour("ink")}
          strokeWidth="1.5"
        />
      ))}
    </svg>
  );
}
