import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";

import type { Report } from "../api/client";
import { checkWords } from "../breathscore/layout";
import { Action } from "../design/Action";
import { PHONE } from "../design/sizes";
import { STATE_WORDS, StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import { feltWords } from "../film/felt";
import { digits, isAngle, unitOf, valueWords } from "../shared/valueWords";
import { dayWords } from "../shared/words";
import { mostOf, stateOf, type Day, type Row } from "./days";
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
  td a:not(:first-child) {
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
    background: ${colour("ground")};
  }
  td a {
    display: inline-flex;
    align-items: center;
    gap: 7px;
    min-height: 24px;
    text-decoration: none;
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
const COLUMN_PX = 104;
const IN_FRONT = 6; // rows before the others are asked for

type Props = { days: Day[]; rows: Row[]; reports: (Report | undefined)[] };

/** A sheet built like a full score: days are columns, what was read stands in the rows. */
export function Score({ days, rows, reports }: Props) {
  const [all, setAll] = useState(false);
  const sheet = useRef<HTMLDivElement>(null);
  const newest = days.at(-1)?.day;
  useEffect(() => {
    sheet.current?.scrollTo({ left: sheet.current.scrollWidth }); // where the days have no room beside each other the newest stands in sight
  }, [newest, rows.length]);
  const most = mostOf(reports.filter((one) => one !== undefined));
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
              <Cells key={row.criterion} row={row} days={days} />
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
      {rows.length > IN_FRONT && <Action onPress={() => setAll(!all)}>{all ? "Only the first" : `All ${rows.length} rows`}</Action>}
    </>
  );
}

/** The number alone where its unit stands in front of the row; an angle with the way it goes. */
const inCell = (row: Row, value: number) => (isAngle(row) ? valueWords({ ...row, value }) : digits(row, value));

function Cells({ row, days }: { row: Row; days: Day[] }) {
  return (
    <tr data-testid={`row-${row.criterion}`}>
      <th scope="row">
        {row.title} {!isAngle(row) && <small>{unitOf(row)}</small>}
      </th>
      {row.cells.map((cell, i) => {
        const { day, take } = days[i]!;
        if (!cell) return <td key={day} />;
        const state = stateOf(cell);
        const words = cell.value === null ? STATE_WORDS[state] : valueWords({ ...row, value: cell.value });
        return (
          <td key={day}>
            <Link to={`/take/${take.id}`} aria-label={`${row.title}, ${dayWords(day)}: ${STATE_WORDS[state]}, ${words}`}>
              <StateMark state={state} size={15} />
              {cell.value === null ? "" : inCell(row, cell.value)}
            </Link>
          </td>
        );
      })}
    </tr>
  );
}
