import { expect, test } from "vitest";

import type { Method } from "../src/api/client";
import { forward } from "../src/method/first";
import { askedOf, finerOf, schoolOf, tally, usualOfOpen } from "../src/method/schools";
import { QUESTIONS, SCHOOLS } from "../src/shared/schools";

const METHOD: Method = {
  asked: true,
  answers: { tongue: "at_once" },
  strictness: "usual",
  order: ["seat", "breath", "hold", "count"],
  questions: [
    { question: "breathing_in", schools: ["belly_then_ribs", "belly_only"], usual: "belly_then_ribs", finer: false },
    { question: "tongue", schools: ["air_first", "at_once"], usual: "air_first", finer: false },
    { question: "between", schools: ["no_pause", "short_set", "counted_pause"], usual: "no_pause", finer: true },
  ],
  shoulders_pct: { milder: 2.25, usual: 1.5, stricter: 1.13 },
};

test("the usual is taken for what is open, and of what was answered nothing is said again", () => {
  expect(usualOfOpen(METHOD)).toEqual({ breathing_in: "belly_then_ribs" });
});

test("a finer question is asked of nobody and is as usual until it is answered", () => {
  expect(askedOf(METHOD).map((one) => one.question)).toEqual(["breathing_in", "tongue"]);
  expect(finerOf(METHOD).map((one) => one.question)).toEqual(["between"]);
  expect(schoolOf(METHOD, "between")).toBe("no_pause");
  expect(schoolOf({ ...METHOD, answers: { between: "short_set" } }, "between")).toBe("short_set");
  for (const { question, schools } of METHOD.questions) {
    expect(QUESTIONS[question].title && schools.every((school) => SCHOOLS[school])).toBe(true);
  }
});

test("the sentence over the questions counts what is left", () => {
  expect([0, 1, 2, 5].map((answered) => tally(answered, 5))).toEqual([
    "Five questions on how you teach.",
    "One question is answered, four to go.",
    "Two questions are answered, three to go.",
    "All five questions are answered.",
  ]);
});

test("one of the order moves a place to the front, the first stays where it is", () => {
  expect(forward(METHOD.order, "hold")).toEqual(["seat", "hold", "breath", "count"]);
  expect(forward(METHOD.order, "seat")).toEqual(METHOD.order);
});
