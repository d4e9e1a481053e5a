import styled from "styled-components";

import type { BenchCard, CareTask } from "../api/client";
import { Lines } from "./Lines";
import { everyWords } from "./due";
import { littleWords } from "./Little";
import { OnPaper } from "./print";

const Paper = styled(OnPaper)`
  font-size: 15px;
  h1 {
    font-size: 26px;
    font-weight: 800;
  }
  figure {
    height: 300px;
    margin: 10px 0;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  td {
    border-bottom: 1px solid currentColor;
    padding: 5px 12px 5px 0;
    vertical-align: top;
  }
  ul {
    margin-top: 10px;
  }
  li {
    padding: 2px 0;
  }
`;

/** What is printed for the lid of the case: the parts, what to do how often and how little, what to leave shut. */
export function Lid({ card, tasks, section }: { card: BenchCard; tasks: CareTask[]; section: string }) {
  const shut = card.parts.filter((one) => one.rule !== "yours");
  return (
    <Paper aria-label="For the case lid">
      <h1>{section}</h1>
      <figure>
        <Lines
          drawing={card.drawings[card.drawing]!}
          hidden={["numbers"]}
          rules={Object.fromEntries(card.parts.map((one) => [one.name, one.rule]))}
        />
      </figure>
      <table>
        <tbody>
          {tasks
            .filter((one) => one.who === "student")
            .map((one) => (
              <tr key={one.key}>
                <td>
                  <b>{one.title}</b>
                </td>
                <td>{everyWords(one.every_days)}</td>
                <td>{littleWords(one.drops, one.rice)}</td>
                <td>{one.say}</td>
              </tr>
            ))}
        </tbody>
      </table>
      <ul>
        <li>
          <b>Leave shut, bring it to the teacher:</b> {shut.map((one) => one.name).join(", ")}.
        </li>
        {card.cautions
          .filter((one) => one.at === "care")
          .map((one) => (
            <li key={one.say}>{one.say}</li>
          ))}
      </ul>
    </Paper>
  );
}
