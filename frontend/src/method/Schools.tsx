import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Method } from "../api/client";
import { KeyCap } from "../design/Action";
import { colour } from "../design/tokens";
import { QUESTIONS, SCHOOLS, type Question } from "./schools";
import { SchoolGlyph } from "./SchoolGlyph";

const Row = styled.section<{ $now: boolean; $open: boolean; $tight: boolean }>`
  display: grid;
  grid-template-columns: ${(p) => (p.$tight ? "108px minmax(0, 1fr)" : "118px minmax(0, 4fr) minmax(180px, 1fr)")};
  gap: 8px 14px;
  align-items: center;
  padding: 6px 10px;
  border-bottom: 1px solid ${colour("hair")};
  outline: ${(p) => (p.$now ? `2px solid ${colour("ink")}` : "none")};
  outline-offset: -2px;
  border-radius: ${(p) => (p.$now ? 4 : 0)}px;
  h2 {
    font-size: 17px;
    font-weight: 700;
    color: ${(p) => colour(p.$open && !p.$now ? "soft" : "ink")};
  }
  p {
    font-size: 15px;
    color: ${colour("soft")};
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Ways = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  align-items: center;
  gap: 8px;
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const WAYS = 3;
const Way = styled(Button)<{ $chosen: boolean; $open: boolean }>`
  display: grid;
  grid-template-columns: 40px auto minmax(0, 1fr);
  gap: 4px 8px;
  align-items: center;
  min-height: 62px;
  padding: 4px 6px 4px 2px;
  border: 0;
  border-bottom: 4px solid ${(p) => (p.$chosen ? colour("ink") : "transparent")};
  background: none;
  color: ${(p) => colour(p.$chosen || p.$open ? "ink" : "soft")};
  font: inherit;
  text-align: left;
  cursor: pointer;
  .key {
    display: grid;
    justify-items: center;
    font-size: 13px;
    color: ${colour("soft")};
  }
  b {
    font-weight: 700;
    line-height: 1.15;
  }
  small {
    display: block;
    font-size: 14px;
    font-weight: 400;
    color: ${colour("soft")};
  }
  &[data-hovered] {
    background: ${colour("wash")};
  }
  &[data-disabled] {
    cursor: default;
  }
`;

type Props = {
  method: Method;
  now: Question | undefined;
  may: boolean;
  tight: boolean;
  onAnswer: (question: Question, school: string) => void;
};

const stateWords = (answered: boolean, now: boolean) => {
  if (answered) return "answered";
  return now ? "which is yours?" : "to come";
};

/** The five questions, each with its ways to teach and what an answer changes. tight: beside a column, what changes stands in the place of a third way. */
export function Schools({ method, now, may, tight, onAnswer }: Props) {
  return method.questions.map(({ question, schools, usual }) => (
    <Row key={question} $tight={tight} $now={question === now} $open={!(question in method.answers)} aria-label={QUESTIONS[question].title}>
      <div>
        <h2>{QUESTIONS[question].title}</h2>
        <p>{stateWords(question in method.answers, question === now)}</p>
      </div>
      <Ways>
        {schools.map((school, i) => {
          const chosen = method.answers[question] === school;
          return (
            <Way
              key={school}
              $chosen={chosen}
              $open={!(question in method.answers)}
              aria-pressed={chosen}
              isDisabled={!may}
              onPress={() => onAnswer(question, school)}
            >
              <span className="key">
                <KeyCap aria-hidden>{i + 1}</KeyCap>
                {school === usual && "usual"}
              </span>
              <SchoolGlyph school={school} />
              <span>
                <b>{SCHOOLS[school]?.title}</b>
                <small>{SCHOOLS[school]?.about}</small>
              </span>
            </Way>
          );
        })}
        {tight && schools.length < WAYS && <p>{QUESTIONS[question].changes}</p>}
      </Ways>
      {!tight && <p>{QUESTIONS[question].changes}</p>}
    </Row>
  ));
}
