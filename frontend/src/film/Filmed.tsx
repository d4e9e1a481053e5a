import styled from "styled-components";

import type { Felt, Seat } from "../api/client";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { PHONE } from "../design/sizes";
import { colour } from "../design/tokens";
import { firstName } from "../shared/words";
import { askedAfter } from "./felt";

const Whole = styled.main`
  min-height: 100dvh;
  padding: 5vh 6vw;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 4vh;
  text-align: center;
  h1 {
    font-size: clamp(30px, 4.4vw, 54px);
    font-weight: 800;
    line-height: 1.1;
    text-wrap: balance;
  }
  p {
    font-size: 20px;
    color: ${colour("soft")};
  }
`;
const Answers = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 20px;
  width: 100%;
  > button {
    min-height: 120px;
    min-width: 220px;
    justify-content: center;
    font-size: 28px;
  }
  @media ${PHONE} {
    flex-direction: column;
    > button {
      min-height: 84px;
    }
  }
`;
const On = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 14px;
`;
type FilmedProps = { seat: Seat; next: Seat | null; before: boolean; onFelt: (felt: Felt | null) => void; onToday: () => void };

/** Filmed: the student says with one tap what it felt like, before anybody knows the reading; then the next chair comes. before: whether this student was
 * filmed before. */
export function Filmed({ seat, next, before, onFelt, onToday }: FilmedProps) {
  const asked = askedAfter(seat.check.asks, before);
  const answers = asked?.answers ?? [];
  const on = next ? `Next: ${firstName(next.student.name)}` : "Back to Today";
  useKeys("Filmed", [
    ...answers.map(({ felt, words }, i) => ({ key: String(i + 1), does: `it felt: ${words}`, run: () => onFelt(felt) })),
    { key: " ", shown: "space", does: "on, without an answer", run: () => onFelt(null) },
    { key: "Escape", shown: "Esc", does: "Today", run: onToday },
  ]);
  return (
    <Whole>
      <p role="status">Filmed, and on its way.</p>
      <h1>
        {firstName(seat.student.name)}
        {asked ? `, ${asked.question}` : ", that was the first one."}
      </h1>
      <Answers>
        {answers.map(({ felt, words }, i) => (
          <Action key={felt} large letter={String(i + 1)} onPress={() => onFelt(felt)}>
            {words}
          </Action>
        ))}
      </Answers>
      <On>
        <Action large main letter="space" onPress={() => onFelt(null)}>
          {on}
        </Action>
        {next && (
          <Action large letter="Esc" onPress={onToday}>
            Back to Today
          </Action>
        )}
      </On>
    </Whole>
  );
}
