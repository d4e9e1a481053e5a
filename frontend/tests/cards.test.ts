import { expect, test } from "vitest";

import type { Card, Check, Earlier, LadderCard, Seat } from "../src/api/client";
import { asKind, besidesOf, minutesFor, moved, rungOf, runOf, snapped, sumOf, textOf, withOneMore, type Draft } from "../src/cards/draft";
import { breathCardOf, checkWords } from "../src/breathscore/layout";
import { besidesWords, mayBeAsked } from "../src/shared/asked";
import { pastWords } from "../src/shared/past";
import { momentAt, saidAt, sideAt } from "../src/film/counting";

const CARD: Card = { inhale_beats: 4, pause_beats: 0, exhale_beats: 6, empty_beats: 0, tempo_bpm: 60, cycles: 2, countin_beats: 4 };

test("a card is sent in its short notation, and says what is unusual only where it is", () => {
  expect(textOf(CARD)).toBe("4-0-6@60x2");
  expect(textOf({ ...CARD, exhale_beats: null, empty_beats: 2, countin_beats: 2, pause_beats: 0.5 })).toBe("4-0.5-*-2@60x2+2");
});

test("each corner changes its own part, the others stay as long as they are", () => {
  expect(moved(CARD, "in", 3)).toMatchObject({ inhale_beats: 3, pause_beats: 0, exhale_beats: 6 });
  expect(moved(CARD, "wait", 5)).toMatchObject({ inhale_beats: 4, pause_beats: 1, exhale_beats: 6 });
  expect(moved(CARD, "out", 12)).toMatchObject({ exhale_beats: 8 });
  expect(moved(CARD, "empty", 12)).toMatchObject({ empty_beats: 2, exhale_beats: 6 });
});

test("no part becomes shorter than it may be, whatever is dragged", () => {
  expect(moved(CARD, "in", -3).inhale_beats).toBe(0.25);
  expect(moved(CARD, "wait", 1).pause_beats).toBe(0);
  expect(moved(CARD, "out", 0).exhale_beats).toBe(0.25);
  expect(moved(CARD, "out", 900).exhale_beats).toBe(32);
});

test("whole beats, with Shift quarters", () => {
  expect([snapped(3.4, false), snapped(3.4, true), snapped(-1, false)]).toEqual([3, 3.5, 0]);
});

test("the arithmetic of the run", () => {
  expect(sumOf(CARD)).toEqual({ countin: 4, breaths: 20, whole: 24 });
  expect(minutesFor(10, sumOf(CARD).whole, 36)).toBe(10);
});

test("the words of the count-in are said on its beats, and one more on the first breath", () => {
  const said = (beat: number, words: string[]) => saidAt(momentAt(CARD, beat), words, CARD.countin_beats);
  expect([0, 1, 2, 3, 4, 5].map((beat) => said(beat, ["one", "two", "rea", "dy", "in"]))).toEqual(["one", "two", "rea", "dy", "in", "2"]);
  expect([0, 3, 4, 14].map((beat) => said(beat, ["one", "two", "ready", "go"]))).toEqual(["one", "go", "1", "1"]);
  expect([0, 4].map((beat) => said(beat, []))).toEqual(["1", "1"]);
});

const DRAFT = { card: CARD, sets: [] } as unknown as Draft;

test("a further set has one beat less to breathe in while there is one, and no card has more than eight", () => {
  let draft = DRAFT;
  for (let i = 0; i < 12; i++) draft = withOneMore(draft);
  expect(draft.sets.map(({ inhale_beats }) => inhale_beats)).toEqual([3, 2, 1, 1, 1, 1, 1]);
});

test("the rest is put in where the next set would make too many in a row", () => {
  const run = runOf([CARD, CARD, CARD, CARD], 6, 30);
  expect(run.filter(({ part }) => part === "rest")).toEqual([{ part: "rest", set: 3, from_s: 72, to_s: 102 }]);
  expect(run.filter(({ part }) => part === "breath")).toHaveLength(8);
  expect(run.at(-1)!.to_s).toBe(126);
  expect(runOf([{ ...CARD, cycles: 6 }, CARD], 6, 30).some(({ part }) => part === "rest")).toBe(true);
  expect(runOf([CARD], 6, 30).map(({ part }) => part)).toEqual(["countin", "breath", "breath"]);
});

test("the first half of the breaths is the other way on purpose, the count-in already says so", () => {
  expect([-1, 0, 1].map((breath) => sideAt(breath, CARD, "high_low"))).toEqual(["high on purpose", "high on purpose", "now low"]);
  expect(sideAt(0, CARD, "none")).toBe("");
});

test("a breath becomes a hold and back: what only the other asks goes", () => {
  const check = { with_instrument: false } as Draft["check"];
  const breath: Draft = {
    rung: 1,
    title: "one",
    kind: "counted_breathing",
    card: { ...CARD, exhale_beats: null },
    sets: [CARD],
    contrast: "high_low",
    asks: "air",
    words: [],
    check: { ...check, full_breath: true },
  };
  const hold = asKind(breath, "hold");
  expect([hold.kind, hold.contrast, hold.asks, hold.check.with_instrument]).toEqual(["hold", "none", "easier", true]);
  expect(hold.check.full_breath).toBe(false);
  expect([textOf(hold.card), textOf(hold.sets[0]!)]).toEqual(["4-0-6-2@60x2", "4-0-6-2@60x2"]);
  expect(asKind(breath, "drill")).toEqual({ ...breath, kind: "drill" }); // practice asks the very same
  const back = asKind(hold, "counted_breathing");
  expect([back.kind, textOf(back.card), back.asks]).toEqual(["counted_breathing", "4-0-6@60x2", "where"]);
});

test("a card says beside its count what the count does not tell", () => {
  const check = { kind: "counted_breathing", with_instrument: false, full_breath: false, position: "seated" } as Draft["check"];
  expect(besidesOf(check, 0)).toEqual([]);
  expect(besidesOf({ ...check, with_instrument: true, full_breath: true, position: "lying" }, 1)).toEqual([
    "instrument",
    "lying on a mat",
    "full breath",
    "1 student",
  ]);
  expect(besidesOf({ ...check, kind: "hold", with_instrument: true }, 2)).toEqual(["2 students"]); // a hold always has it
});

test("what is played and by which schools a card is judged is told in one line, what it leaves open not at all", () => {
  const check = { with_instrument: true, notes: "concert B flat", dynamic: "soft", articulation: "any", taught: {} } as unknown as Check;
  expect(besidesWords(check)).toBe("concert B flat, soft");
  expect(besidesWords({ ...check, with_instrument: false })).toBe(""); // nothing is played without it
  expect(besidesWords({ ...check, notes: "", dynamic: "any", taught: { fullness: "counts_are_time", breathing_out: "let_fall" } })).toBe(
    "let it fall out, counts are only time",
  );
});

test("lying down is asked only of whose family said yes to that", () => {
  const may = (may_film_until: string | null, may_lie: boolean, position: Check["position"]) =>
    mayBeAsked({ may_film_until, may_lie } as Seat["student"], { position });
  expect([may("2027-01-01", false, "seated"), may("2027-01-01", false, "lying"), may("2027-01-01", true, "lying")]).toEqual([
    true,
    false,
    true,
  ]);
  expect(may(null, true, "lying")).toBe(false);
});

test("of earlier days the weightiest is said, and nothing where there is nothing to say", () => {
  const none: Earlier = { marks: [], running: 0, steady_since: null, move: "stay", to: "" };
  expect(pastWords(none)).toBe("");
  expect(pastWords({ ...none, running: 3, move: "back", to: "3-0-4@72x3" })).toBe("third lesson running");
  expect(pastWords({ ...none, running: 7 })).toBe("7 lessons running");
  expect(pastWords({ ...none, move: "up", to: "3-0-5@76x3", steady_since: "2026-11-08" })).toBe("may go up: 3-0-5 at 76");
  expect(pastWords({ ...none, move: "back", to: "0.5-0-8@80x4" })).toBe("perhaps back: 0.5-0-8 at 80");
  expect(pastWords({ ...none, steady_since: "2026-11-08" })).toBe("steady since 8 November");
});

test("a new hold stands on the holds' rung, or on one of its own after the last", () => {
  const card = (rung: number, kind: string) => ({ rung, title: `rung ${rung}`, check: { kind } }) as unknown as LadderCard;
  expect(rungOf([card(1, "counted_breathing"), card(4, "hold")], "hold")).toEqual({ rung: 4, title: "rung 4" });
  expect(rungOf([card(1, "counted_breathing"), card(3, "counted_breathing")], "hold")).toEqual({ rung: 4, title: "the hold" });
});

test("a hold is named by its counts: up, kept, down", () => {
  const hold = {
    kind: "hold",
    name: "hold 2-0-6-2@60x3",
    sets: [],
    card: { ...CARD, inhale_beats: 2, empty_beats: 2 },
  } as unknown as Check;
  expect([checkWords(hold), breathCardOf(hold)]).toEqual(["hold 2-6-2 at 60", null]);
  const breath = { ...hold, kind: "counted_breathing", name: "4-0-6@60x2" } as Check;
  expect([checkWords(breath), breathCardOf(breath)]).toEqual(["4-0-6 at 60", breath.card]);
});
