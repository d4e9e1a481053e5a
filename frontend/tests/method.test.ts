import { expect, test } from "vitest";

import type { Method } from "../src/api/client";
import { forward } from "../src/method/first";
import { tally, withUsual } from "../src/method/schools";

const METHOD: Method = {
  asked: true,
  answers: { tongue: "at_once" },
  strictness: "usual",
  order: ["seat", "breath", "hold", "count"],
  questions: [
    { question: "breathing_in", schools: ["belly_then_ribs", "belly_only"], usual: "belly_then_ribs" },
    { question: "tongue", schools: ["air_first", "at_once"], usual: "air_first" },
  ],
  shoulders_pct: { milder: 2.25, usual: 1.5, stricter: 1.13 },
};

test("the usual is taken for what is open, and what was answered stays", () => {
  expect(withUsual(METHOD)).toEqual({ breathing_in: "belly_then_ribs", tongue: "at_once" });
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
