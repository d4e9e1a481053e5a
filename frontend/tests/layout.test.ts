import { describe, expect, it } from "vitest";

import { LANES, checkWords, layoutOf, rangeOf, restOf } from "../src/breathscore/layout";
import { summaryOf } from "../src/breathscore/summary";
import { cardOf, checkOf, reportOf } from "./report";

const CARD = cardOf(4, 0, 4, 60, 2);
const TWO = reportOf([
  [4, 8, 8, 12],
  [12.2, 16, 16.4, 20],
]);

describe("a check in a few words", () => {
  it("is its card's notation with the tempo apart", () => expect(checkWords(checkOf("4-0-6@84x3", CARD))).toBe("4-0-6 at 60"));
  it("says where there is no card", () => expect(checkWords(checkOf("posture", null))).toBe("no card"));
});

describe("the layout of a breath score", () => {
  const found = layoutOf(TWO, CARD, { width: 900, height: 420 });

  it("keeps time and place each other's inverse, inside the clip", () => {
    expect(found.time(found.x(7.3))).toBeCloseTo(7.3);
    expect(found.time(-500)).toBe(0);
    expect(found.time(5000)).toBe(24);
    expect(found.x(0)).toBe(found.left);
    expect(found.x(24)).toBe(found.right);
  });

  it("has a row under the lanes where a foot taps, each strike at its time, and none where none does", () => {
    const tapped = layoutOf({ ...TWO, player: { strikes_s: [4.1, 5.1, 23.9] } } as unknown as typeof TWO, CARD, {
      width: 900,
      height: 420,
    });
    expect(found.footMiddle).toBeNull();
    expect(tapped.footMiddle).toBeGreaterThan(tapped.bottom);
    expect(tapped.bottom).toBeLessThan(found.bottom);
    expect(tapped.strikes).toEqual([4.1, 5.1, 23.9]);
    const near = layoutOf({ ...TWO, player: { strikes_s: [4.1, 5.1, 23.9] } } as unknown as typeof TWO, CARD, {
      width: 400,
      height: 300,
      from: 4,
      to: 12,
      narrow: true,
    });
    expect(near.strikes).toEqual([4.1, 5.1]);
  });

  it("says over the one breath of a narrow drawing what is asked of it, where the words have room", () => {
    const near = (card: typeof CARD) => layoutOf(TWO, card, { width: 400, height: 300, from: 3.65, to: 12.35, narrow: true });
    const words = (card: typeof CARD) => near(card).phases.map((phase) => phase.words);
    expect(words(CARD)).toEqual(["in for 4", "out for 4"]);
    expect(near(CARD).phases[0]!.x).toBeCloseTo(near(CARD).x(6));
    expect(words(cardOf(1, 0, 7, 60, 2))).toEqual(["out for 7"]);
    expect(found.phases).toEqual([]);
  });

  it("stacks shoulders, chest and abdomen from top to bottom, inside the drawing", () => {
    expect(LANES).toEqual(["shoulder", "chest", "abdomen"]);
    expect(found.base.shoulder).toBeLessThan(found.base.chest);
    expect(found.base.chest).toBeLessThan(found.base.abdomen);
    expect(found.base.abdomen).toBeLessThanOrEqual(found.bottom);
    expect(found.base.shoulder).toBeGreaterThan(found.countMiddle + found.countHalf);
  });

  it("gives every lane the same scale, so that sizes can be compared", () => {
    expect(rangeOf(TWO.trace.abdomen, "abdomen")[1]).toBeCloseTo(3);
    expect(found.perPct * 3).toBeLessThan(found.base.abdomen - found.base.chest);
  });

  it("draws what was done and what was asked apart", () => {
    expect(found.done).toEqual([
      { from: 4, full: 8, leave: 8, to: 12 },
      { from: 12.2, full: 16, leave: 16.4, to: 20 },
    ]);
    expect(found.asked).toEqual([
      { from: 4, full: 8, leave: 8, to: 12 },
      { from: 12, full: 16, leave: 16, to: 20 },
    ]);
    expect(found.washes).toEqual([
      { from: 4, to: 8 },
      { from: 12, to: 16 },
    ]);
  });

  it("numbers the bars from the first inhale on and leaves the count-in without", () => {
    const bars = found.beats.filter((beat) => beat.label);
    expect(bars.map((beat) => beat.label)).toEqual(["1", "2", "3", "4", "5", "6"]);
    expect(bars[0]?.x).toBeCloseTo(found.x(4));
    expect(found.beats.filter((beat) => beat.x < found.x(4) - 1).every((beat) => !beat.bar)).toBe(true);
  });

  it("counts seconds where no beat is known, and asks nothing", () => {
    const silent = layoutOf(
      reportOf([[4, 8, 8, 12]], { beats: { tempo_bpm: null, first_inhale_s: null, source: null, residual_s: null } }),
      CARD,
      { width: 900, height: 420 },
    );
    expect(silent.asked).toEqual([]);
    expect(silent.washes).toEqual([{ from: 4, to: 8 }]);
    expect(silent.beats.filter((beat) => beat.label).map((beat) => beat.label)).toEqual(["0 s", "5 s", "10 s", "15 s", "20 s"]);
  });

  it("leaves a breath that the clip cuts off without a wedge, and an unseen lane empty", () => {
    const cut = reportOf([[4, 8, 8, 12]]);
    cut.breaths[0]!.exhale_end_s = null;
    cut.trace.chest = [];
    const drawn = layoutOf(cut, null, { width: 900, height: 420 });
    expect(drawn.done).toEqual([]);
    expect(drawn.seen).toEqual({ shoulder: true, chest: false, abdomen: true });
    expect(Number.isFinite(drawn.base.chest)).toBe(true);
  });

  it("puts ticks at round percents that lie inside the lane", () => {
    for (const lane of LANES) {
      const [, high] = rangeOf(TWO.trace[lane], lane);
      expect(found.ticks[lane].every((tick) => tick <= high + 1e-6 && tick * found.perPct >= 26)).toBe(true);
    }
    expect(found.ticks.abdomen.length).toBeGreaterThan(0);
  });
});

describe("the level of rest", () => {
  it("is the lower tenth, whatever stands out below it", () => expect(restOf([-5, ...Array(30).fill(0.5), 3, 3])).toBe(0.5));
  it("of nothing is nought", () => expect(restOf([])).toBe(0));
});

describe("the spoken sentence", () => {
  it("says how many and how long", () =>
    expect(summaryOf(TWO)).toBe("Breath score of 2 breaths, on average 3.9 beats in and 3.8 beats out."));
  it("says one breath in the singular, without beats where there are none", () => {
    const one = reportOf([[4, 8, 8, 12]]);
    one.breaths[0]!.inhale_beats = null;
    expect(summaryOf(one)).toBe("Breath score of 1 breath.");
  });
  it("says so where there is none", () => expect(summaryOf(reportOf([]))).toBe("Breath score without a whole breath."));
});

describe("a drawing in a small place", () => {
  const small = layoutOf(TWO, CARD, { width: 320, height: 180 });

  it("keeps its lanes inside and its count line readable", () => {
    expect(small.countHalf).toBeGreaterThanOrEqual(10);
    expect(small.perPct).toBeGreaterThan(0);
    for (const lane of LANES) expect(small.base[lane]).toBeLessThanOrEqual(small.bottom);
  });

  it("has fewer ticks than a large one, none closer than can be read", () => {
    const large = layoutOf(TWO, CARD, { width: 1200, height: 900 });
    expect(small.ticks.abdomen.length).toBeLessThanOrEqual(large.ticks.abdomen.length);
    expect(large.ticks.abdomen.every((tick) => tick * large.perPct >= 26)).toBe(true);
  });
});

describe("a card with an open exhale", () => {
  it("asks no wedge, so that what was done is washed instead", () => {
    const open = layoutOf(TWO, cardOf(4, 0, null, 60, 1), { width: 900, height: 420 });
    expect(open.asked).toEqual([]);
    expect(open.washes).toEqual(open.done.map(({ from, full }) => ({ from, to: full })));
  });
});
