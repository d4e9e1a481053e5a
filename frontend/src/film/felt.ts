import type { Check, Felt } from "../api/client";

/** What a student may be asked before the reading is there, and what may be answered, in words for a child. */
export const QUESTIONS: Record<Check["asks"], { question: string; answers: { felt: Felt; words: string }[] }> = {
  where: {
    question: "where did the air go?",
    answers: [
      { felt: "low", words: "low" },
      { felt: "high", words: "high" },
      { felt: "unsure", words: "don't know" },
    ],
  },
  easier: {
    question: "was it easier than before?",
    answers: [
      { felt: "easier", words: "easier" },
      { felt: "same", words: "the same" },
      { felt: "harder", words: "harder" },
    ],
  },
  air: {
    question: "was there enough air?",
    answers: [
      { felt: "enough", words: "enough" },
      { felt: "not_enough", words: "not enough" },
      { felt: "unsure", words: "don't know" },
    ],
  },
};

/** What a student is asked after a try; null where there is nothing it could be easier than. before: whether this student was filmed before. */
export const askedAfter = (asks: Check["asks"], before: boolean): (typeof QUESTIONS)["where"] | null =>
  asks === "easier" && !before ? null : QUESTIONS[asks];

/** An answer in the words it was given in; empty where nothing was said. */
export const feltWords = (asks: Check["asks"], felt: Felt): string => QUESTIONS[asks].answers.find((one) => one.felt === felt)?.words ?? "";
