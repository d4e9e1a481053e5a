import styled from "styled-components";

import type { BenchCard } from "../api/client";
import { colour } from "../design/tokens";
import { LastStill } from "./LastStill";
import { Lines } from "./Lines";

const Below = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr);
  gap: 30px;
  margin-top: 26px;
  border-top: 1px solid ${colour("hair")};
  padding-top: 14px;
  font-size: 16px;
  h2 {
    font-size: 17px;
    font-weight: 700;
    margin-bottom: 6px;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th,
  td {
    text-align: left;
    font-weight: 400;
    padding: 4px 14px 4px 0;
    border-bottom: 1px solid ${colour("hair")};
    vertical-align: top;
  }
  th {
    color: ${colour("soft")};
  }
  ul > li {
    padding: 3px 0 3px 12px;
    border-left: 4px solid ${colour("ink")};
    margin-bottom: 8px;
  }
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Pictures = styled.section`
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(380px, 1fr));
  gap: 18px 30px;
  svg {
    height: 200px;
  }
  figcaption {
    color: ${colour("soft")};
  }
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** What can wait below the tries: where each finger lives, rest and playing position, and the cautions of the first sounds. */
export function Homes({ card, student }: { card: BenchCard; student: number }) {
  return (
    <Below aria-label="Hands and cautions">
      <LastStill student={student} />
      <div>
        <h2>The home of each finger</h2>
        <table>
          <thead>
            <tr>
              <th>finger</th>
              <th>where it lives</th>
              <th>usual wrong place</th>
            </tr>
          </thead>
          <tbody>
            {card.home.map((one) => (
              <tr key={one.finger}>
                <td>{one.finger}</td>
                <td>{one.place}</td>
                <td>{one.wrong}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div>
        <h2>Rest and playing</h2>
        <p>Rest: {card.rest}.</p>
        <p>Playing: {card.playing}.</p>
        <h2>Careful</h2>
        <ul>
          {card.cautions
            .filter((one) => one.at === "first_notes")
            .map((one) => (
              <li key={one.say}>{one.say}</li>
            ))}
        </ul>
      </div>
      <Pictures aria-label="Hands and posture">
        {card.pictures.map((name) => (
          <figure key={name}>
            <Lines drawing={card.drawings[name]!} />
            <figcaption>{card.drawings[name]!.title}</figcaption>
          </figure>
        ))}
      </Pictures>
    </Below>
  );
}
