import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";

import type { Report } from "../api/client";
import { checkWords } from "../breathscore/layout";
import { Action } from "../design/Action";
import { PHONE } from "../design/sizes";
import { StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import { feltWords } from "../film/felt";
import { dayWords } from "../shared/words";
import { mostOf, type Day, type Row } from "./days";
import { RowCells } from "./RowCells";
import { Typical, TYPICAL_PX } from "./Typical";

const Scroll = styled.div`
  overflow-x: auto;
`;
const Sheet = styled.table`
  border-collapse: collapse;
  font-size: 15px;
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 6px 10px 6px 0;
    border-bottom: 1px solid ${colour("hair")};
    min-width: 104px;
  }
  thead th {
    border-bottom: 2px solid ${colour("ink")};
    font-weight: 650;
    small {
      display: block;
      color: ${colour("soft")};
      font-weight: 400;
      font-size: 14px;
    }
  }
  tbody th small {
    display: block;
    color: ${colour("soft")};
    font-weight: 400;
    font-size: 14px;
  }
  td a.other {
    display: flex;
    color: ${colour("soft")};
  }
  tbody th {
    font-weight: 650;
    min-width: 150px;
    @media ${PHONE} {
      min-width: 112px;
    }
  }
  tr > :first-child {
    position: sticky; /* names stay where days are scrolled */
    left: 0;
    z-index: 1; /* over the marks that stand at their own heights */
    background: ${colour("ground")};
  }
  td a {
    display: inline-flex;
    align-items: center;
    gap: 7px;
    min-height: 24px;
    text-decoration: none;
  }
  td a svg {
    flex: none;
  }
  td a span {
    max-width: 160px; /* a sentence makes no day wider than the others */
  }
  td a:hover {
    text-decoration: underline;
  }
  .lanes {
    display: grid;
    height: ${TYPICAL_PX}px;
    align-content: end;
    color: ${colour("soft")};
    font-weight: 400;
    span {
      height: 38px;
      display: flex;
      align-items: end;
    }
    .count {
      height: 26px;
      align-items: center;
    }
  }
`;
const Legend = styled.p`
  color: ${colour("soft")};
  font-size: 14px;
  padding: 8px 0 10px;
`;
const COLUMN_PX = 104;
const IN_FRONT = 6; // rows before the others are asked for

type Props = { days: Day[]; rows: Row[]; reports: (Report | undefined)[] };

/** A sheet built like a full score: days are columns, what was read stands in the rows. */
export function Score({ days, rows, reports }: Props) {
  const [all, setAll] = useState(false);
  const sheet = useRef<HTMLDivElement>(null);
  const newest = days.at(-1)?.day;
  const drawn = reports.filter((one) => one !== undefined);
  useEffect(() => {
    sheet.current?.scrollTo({ left: sheet.current.scrollWidth }); // where the days have no room beside each other the newest stands in sight
  }, [newest, rows.length, drawn.length]); // a day is wider once its breath is drawn
  const most = mostOf(drawn);
  const front = all ? rows : rows.slice(0, IN_FRONT);
  return (
    <>
      <Scroll ref={sheet} tabIndex={0} role="region" aria-label="The record by days">
        <Sheet>
          <thead>
            <tr>
              <td />
              {days.map(({ day, take }) => (
                <th key={day} scope="col">
                  {dayWords(day)}
                  <small>{checkWords(take.check)}</small>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">
                <div className="lanes">
                  <span className="count">count</span>
                  <span>shoulders</span>
                  <span>chest</span>
                  <span>abdomen</span>
                </div>
              </th>
              {days.map(({ day }, i) => (
                <td key={day}>{reports[i] && <Typical report={reports[i]} width={COLUMN_PX} most={most} />}</td>
              ))}
            </tr>
            <tr>
              <th scope="row">The reading</th>
              {days.map(({ day, take, others }) => (
                <td key={day}>
                  <Link to={`/take/${take.id}`}>
                    {take.headline && <StateMark state={take.headline.state} size={15} />}
                    <span>{take.headline?.words || take.reason_text || "not read yet"}</span>
                  </Link>
                  {others.map((one) => (
                    <Link
                      key={one.id}
                      className="other"
                      to={`/take/${one.id}`}
                      aria-label={`${dayWords(day)}, ${checkWords(one.check)}, try ${one.try_number}`}
                    >
                      {one.headline && <StateMark state={one.headline.state} size={11} />}
                      <small>
                        {checkWords(one.check)}, try {one.try_number}
                      </small>
                    </Link>
                  ))}
                </td>
              ))}
            </tr>
            {front.map((row) => (
              <RowCells key={row.criterion} row={row} days={days} reports={reports} />
            ))}
            {days.some(({ take }) => take.felt) && (
              <tr>
                <th scope="row">It felt</th>
                {days.map(({ day, take }) => (
                  <td key={day}>{feltWords(take.check.asks, take.felt)}</td>
                ))}
              </tr>
            )}
          </tbody>
        </Sheet>
      </Scroll>
      <Legend>Up is better in every row. Band: how sure the reading is. Dotted: where steady ends, where work on this begins.</Legend>
      {rows.length > IN_FRONT && <Action onPress={() => setAll(!all)}>{all ? "Only the first" : `All ${rows.length} rows`}</Action>}
    </>
  );
}
