import { Link } from "react-router";
import styled from "styled-components";

import type { Report } from "../api/client";
import { STATE_WORDS, StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import { digits, isAngle, unitOf, valueWords } from "../shared/valueWords";
import { dayWords } from "../shared/words";
import { heightOf, piecesIn, ROW_PX, standsOf, type Stand } from "./curve";
import { stateOf, type Day, type Row } from "./days";

const Cell = styled.td`
  && {
    position: relative;
    height: ${ROW_PX}px;
    padding: 0;
  }
  svg.line {
    position: absolute;
    inset: 0;
    width: 100%;
    height: ${ROW_PX}px;
  }
`;
const Mark = styled(Link)<{ $y: number }>`
  && {
    position: absolute;
    top: ${(p) => p.$y - 12}px;
    left: 1px;
  }
  span {
    padding: 0 3px;
    background: ${colour("ground")};
  }
`;
const MIDDLE_PX = ROW_PX / 2;

/** The number alone where its unit stands in front of the row; an angle with the way it goes. */
const inCell = (row: Row, value: number) => (isAngle(row) ? valueWords({ ...row, value }) : digits(row, value));

/** One criterion over the days: its marks on a line, up is better, the band is how sure; each mark leads to its take. */
export function RowCells({ row, days, reports }: { row: Row; days: Day[]; reports: (Report | undefined)[] }) {
  const stands = standsOf(row.criterion, row.cells, reports);
  return (
    <tr data-testid={`row-${row.criterion}`}>
      <th scope="row">
        {row.title} {!isAngle(row) && <small>{unitOf(row)}</small>}
      </th>
      {row.cells.map((cell, i) => {
        const { day, take } = days[i]!;
        const state = cell && stateOf(cell);
        const words = cell?.value == null ? "" : valueWords({ ...row, value: cell.value });
        return (
          <Cell key={day}>
            <Line stands={stands} column={i} />
            {state && (
              <Mark
                $y={stands[i] ? heightOf(stands[i].at) : MIDDLE_PX}
                to={`/take/${take.id}`}
                aria-label={`${row.title}, ${dayWords(day)}: ${[STATE_WORDS[state], words].filter(Boolean).join(", ")}`}
              >
                <StateMark state={state} size={15} />
                {cell.value !== null && <span>{inCell(row, cell.value)}</span>}
              </Mark>
            )}
          </Cell>
        );
      })}
    </tr>
  );
}

/** What of the line lies in a column, over the ticks where steady ends and where work begins. */
function Line({ stands, column }: { stands: (Stand | null)[]; column: number }) {
  if (!stands.some(Boolean)) return null;
  return (
    <svg className="line" viewBox={`0 0 1 ${ROW_PX}`} preserveAspectRatio="none" aria-hidden>
      {[0, 1].map((limit) => (
        <path
          key={limit}
          d={`M0,${heightOf(limit)} H1`}
          stroke={colour("hair")}
          strokeWidth="1"
          strokeDasharray="1 4"
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {piecesIn(stands, column).map(({ from, to, above, below, gap }) => (
        <g key={from[0]}>
          <path d={`M${from[0]},${above[0]} L${to[0]},${above[1]} L${to[0]},${below[1]} L${from[0]},${below[0]} Z`} fill={colour("wash")} />
          <path
            d={`M${from[0]},${from[1]} L${to[0]},${to[1]}`}
            stroke={colour("ink")}
            strokeWidth="1.5"
            strokeDasharray={gap ? "2 4" : undefined}
            vectorEffect="non-scaling-stroke"
          />
        </g>
      ))}
    </svg>
  );
}
