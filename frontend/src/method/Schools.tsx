import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Method, Preview } from "../api/client";
import { KeyCap } from "../design/Action";
import { colour } from "../design/tokens";
import { QUESTIONS, SCHOOLS, type Question } from "../shared/schools";
import { askedOf, tried, type Way } from "./schools";
import { SchoolGlyph } from "./SchoolGlyph";

const Row = styled.section<{ $now: boolean; $open: boolean }>`
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr);
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
const Count = styled.span`
  margin-left: 8px;
  padding-left: 7px;
  border-left: 1.5px solid ${colour("ink")};
  font-size: 14px;
  color: ${colour("ink")};
`;
const Way = styled(Button)<{ $chosen: boolean; $open: boolean }>`
  display: grid;
  grid-template-columns: 24px 58px minmax(0, 1fr);
  gap: 4px 8px;
  svg {
    width: 58px;
    height: 36px;
  }
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
  preview: Preview | undefined;
  onAnswer: (question: Question, school: string) => void;
  onPoint: (way: Way) => void;
};

const stateWords = (answered: boolean, now: boolean) => {
  if (answered) return "answered";
  return now ? "which is yours?" : "to come";
};

/** The five questions, each with its ways to teach; beside a way, how many stored takes it would change. */
export function Schools({ method, now, may, preview, onAnswer, onPoint }: Props) {
  const would = (question: Question, school: string) => tried(preview, { question, school })?.count ?? 0;
  return askedOf(method).map(({ question, schools, usual }) => (
    <Row key={question} $now={question === now} $open={!(question in method.answers)} aria-label={QUESTIONS[question].title}>
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
              onHoverStart={() => onPoint({ question, school })}
              onFocus={() => onPoint({ question, school })}
            >
              <KeyCap aria-hidden>{i + 1}</KeyCap>
              <SchoolGlyph school={school} />
              <span>
                <b>{SCHOOLS[school]?.title}</b>
                {would(question, school) > 0 && <Count title="stored takes that would change">{would(question, school)}</Count>}
                <small>
                  {SCHOOLS[school]?.about}
                  {school === usual && "; usual"}
                </small>
              </span>
            </Way>
          );
        })}
        {preview?.takes === 0 && schools.length < WAYS && <p>{QUESTIONS[question].changes}</p>}
      </Ways>
    </Row>
  ));
}
