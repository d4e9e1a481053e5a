import styled from "styled-components";

import { useClass } from "../api/queries";
import { Action } from "../design/Action";
import { colour } from "../design/tokens";
import { toComeOf } from "./run";

const Foot = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px 34px;
  margin-top: 20px;
  padding-top: 16px;
  border-top: 1px solid ${colour("ink")};
  color: ${colour("soft")};
  font-size: 15px;
  h2 {
    font-size: 17px;
    font-weight: 700;
  }
  b {
    display: block;
    font-weight: 650;
  }
  > button {
    margin-left: auto;
  }
`;

/** What the first lesson still needs, in the order in which it is done; soft, as it is to come. */
export function ToCome({ onClass }: { onClass: () => void }) {
  const found = useClass();
  if (!found.data || found.data.members.length === 0) return null;
  const students = found.data.members.length;
  const letters = found.data.members.filter((one) => one.student.may_film_until === null).length;
  return (
    <Foot aria-labelledby="to-come">
      <h2 id="to-come">First lesson</h2>
      {toComeOf(students, letters).map(([what, words]) => (
        <p key={what}>
          <b>{what}</b>
          {words}
        </p>
      ))}
      <Action onPress={onClass}>To the class</Action>
    </Foot>
  );
}
