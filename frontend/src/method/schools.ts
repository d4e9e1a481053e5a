import type { Method, Preview } from "../api/client";
import { QUESTIONS, SCHOOLS, type Question } from "../shared/schools";

export type Answers = Method["answers"];

/** The questions that a start asks, and those that are as usual until somebody answers them. */
export const askedOf = (method: Method) => method.questions.filter((one) => !one.finer);
export const finerOf = (method: Method) => method.questions.filter((one) => one.finer);

/** The school that is followed: the answer, or the usual one. */
export const schoolOf = (method: Method, question: Question): string =>
  method.answers[question] ?? method.questions.find((one) => one.question === question)?.usual ?? "";

const NUMBERS = ["No question", "One question", "Two questions", "Three questions", "Four questions", "All five questions"];
const LEFT = ["", "one to go", "two to go", "three to go", "four to go", "five to go"];

/** How many questions "U" answers. */
export const leftWords = (open: number, of: number) => (open === of ? "all five" : `the other ${LEFT[open]!.split(" ")[0]}`);

/** The large sentence over the questions. */
export function tally(answered: number, of: number): string {
  if (answered === 0) return "Five questions on how you teach.";
  const is = answered === 1 ? "is" : "are";
  return answered === of ? `${NUMBERS[answered]} are answered.` : `${NUMBERS[answered]} ${is} answered, ${LEFT[of - answered]}.`;
}

/** The open questions answered as usual; of the others nothing is said. */
export const usualOfOpen = (method: Method): Answers =>
  Object.fromEntries(
    askedOf(method)
      .filter((one) => !(one.question in method.answers))
      .map((one) => [one.question, one.usual]),
  );

export type Way = Partial<Pick<Preview["ways"][number], "question" | "school" | "strictness">>;

const same = (one: Way, other: Way) =>
  (one.question ?? null) === (other.question ?? null) &&
  (one.school ?? null) === (other.school ?? null) &&
  (one.strictness ?? null) === (other.strictness ?? null);

/** What a way would change; nothing of the way that is followed. */
export const tried = (preview: Preview | undefined, way: Way) => preview?.ways.find((one) => same(one, way));

/** What is asked: "If breathing in were judged as only the belly". */
export function ifWords({ question, school, strictness }: Way): [string, string] {
  if (strictness) return ["If it were judged", strictness === "usual" ? "as usual" : strictness];
  return [`If ${QUESTIONS[question!].title.toLowerCase()} were judged as`, (SCHOOLS[school!]?.title ?? "").toLowerCase()];
}

/** The large sentence of a preview. */
export function changeWords(count: number, takes: number): string {
  if (takes === 0) return "No take has been read yet.";
  if (count === 0) return takes === 1 ? "The one take stays as it is." : `All ${takes} takes stay as they are.`;
  return `${count} of ${takes} ${takes === 1 ? "take" : "takes"} would change.`;
}

/** What becomes of the others. */
export function stayWords(count: number, { takes, overruled }: Pick<Preview, "takes" | "overruled">): string {
  const stay = takes - count;
  const yours = overruled ? `; where you overruled, in ${overruled}, your word stands` : "";
  const others = ["no other stays as it is", "1 stays as it is"][stay] ?? `${stay} stay as they are`;
  return `${others}${yours}`;
}
