import type { Method, Preview } from "../api/client";
import { Action } from "../design/Action";
import { Joined } from "../design/Joined";
import { Part } from "./Part";
import { QUESTIONS, SCHOOLS, type Question } from "../shared/schools";
import { finerOf, schoolOf, type Way } from "./schools";

type Props = {
  method: Method;
  may: boolean;
  preview: Preview | undefined;
  onAnswer: (question: Question, school: string) => void;
  onPoint: (way: Way) => void;
};

/** Where teachers differ in what is finer: as usual until one is pressed; under the words, how many stored takes another way would change. */
export function Finer({ method, may, preview, onAnswer, onPoint }: Props) {
  return finerOf(method).map(({ question, schools }) => (
    <Part key={question} aria-labelledby={`finer-${question}`}>
      <p id={`finer-${question}`}>{QUESTIONS[question].title.toLowerCase()}</p>
      <Joined role="group" aria-labelledby={`finer-${question}`}>
        {schools.map((school) => {
          const chosen = schoolOf(method, question) === school;
          return (
            <Action
              key={school}
              pressed={chosen}
              main={chosen}
              onPress={() => onAnswer(question, school)}
              onHoverStart={() => onPoint({ question, school })}
              onFocus={() => onPoint({ question, school })}
              isDisabled={!may}
            >
              {SCHOOLS[school]?.title.toLowerCase()}
            </Action>
          );
        })}
      </Joined>
      <small>{finerWords(method, question, preview)}</small>
    </Part>
  ));
}

const TIME = "counts_are_time";

/** What the way that is followed means, and how many stored takes the others would change. */
function finerWords(method: Method, question: Question, preview: Preview | undefined): string {
  if (question === "between" && schoolOf(method, "fullness") === TIME)
    return "not judged: where counts are only time, who is full early waits";
  const about = SCHOOLS[schoolOf(method, question)]?.about ?? "";
  const most = Math.max(0, ...(preview?.ways ?? []).filter((way) => way.question === question).map((way) => way.count));
  if (!most) return about;
  return `${about}; another way would change ${most} ${most === 1 ? "take" : "takes"}`;
}
