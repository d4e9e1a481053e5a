import { QueryClient } from "@tanstack/react-query";
import { expect, test } from "vitest";

import type { Bench, BenchCard, CareTask, Firsts, Run, Rung, Section } from "../src/api/client";
import { hearing, putRun } from "../src/api/told";
import { dueWords, everyWords, inOrder, lettersOf, logWords, saidFirst } from "../src/bench/due";
import { guideWords, longest } from "../src/bench/lengths";
import { gateWords, heardWords, outOf, passed, rungNow } from "../src/bench/rungs";
import { asBytes, Tries } from "../src/bench/sound";
import { shortLines } from "../src/bench/Staff";
import { clock, minutesOf, nextWay, spent, standingWords, stepNow, waitsLongest, waitsSince } from "../src/bench/way";

const AT = "2026-09-01T10:00:00Z";
const ms = (seconds: number) => Date.parse(AT) + 1000 * seconds;
const run = (more: Partial<Run> = {}): Run => ({
  id: 1, card: "clarinet", phase: "together", steps: ["bell", "reed", "rest"], step: 0, spent_s: {}, since: AT, helping: [], helped: [], away: [],
  chosen: {}, times: 1, stopped: false, done: false, taps: 1, now: AT, ...more,
}); // prettier-ignore
const step = (key: string, seconds: number) => ({ key, seconds, title: key, say: `Do ${key}.`, drawing: "D1" });
const CARD = {
  name: "clarinet",
  steps: [step("bell", 60), step("reed", 40), step("rest", 20)],
  choices: [
    {
      key: "order", title: "", step: "reed",
      options: [
        { key: "ligature", label: "", reason: "", say: "", drawing: "", order: [] },
        { key: "reed", label: "", reason: "", say: "Lay it on.", drawing: "D2", order: [] },
      ],
    },
  ],
  chosen: { order: "ligature" },
} as unknown as BenchCard; // prettier-ignore
const section = (card: string, ...runs: Run[]): Section => ({ card, section: card, chairs: [], runs, due: 0 });

test("minutes gone, to go and planned; a step that takes long leaves the others their time", () => {
  expect(minutesOf(CARD, run(), ms(30))).toEqual({ gone_s: 30, left_s: 90, planned_s: 120 });
  expect(minutesOf(CARD, run({ step: 1, spent_s: { bell: 100 } }), ms(90))).toEqual({ gone_s: 190, left_s: 20, planned_s: 120 });
  expect(minutesOf(CARD, run({ since: null, spent_s: { bell: 10 } }), ms(900)).gone_s).toBe(10);
  expect([clock(0), clock(65.9), clock(600)]).toEqual(["0:00", "1:05", "10:00"]);
  expect(spent(run(), "reed", ms(30))).toBe(0);
});

test("the way that was switched has its own sentence and drawing, and the next one follows", () => {
  expect(stepNow(CARD, run({ step: 1 }))).toMatchObject({ say: "Do reed.", drawing: "D1" });
  expect(stepNow(CARD, run({ step: 1, chosen: { order: "reed" } }))).toMatchObject({ say: "Lay it on.", drawing: "D2" });
  expect(nextWay(CARD, run(), CARD.choices[0]!)).toBe("order=reed");
  expect(nextWay(CARD, run({ chosen: { order: "reed" } }), CARD.choices[0]!)).toBe("order=ligature");
  expect(stepNow(CARD, run({ step: 3 }))).toBeUndefined();
});

test("where a section stands, and which waits longest", () => {
  const waiting = (seconds: number) => run({ helping: [{ student: 1, since: new Date(ms(seconds)).toISOString() }] });
  expect(standingWords(section("a"))).toBe("not begun");
  expect(standingWords(section("a", run({ step: 1 })))).toBe("step 2 of 3");
  expect(standingWords(section("a", run({ stopped: true })))).toBe("kept at step 1 of 3");
  expect(standingWords(section("a", run({ done: true, step: 3 })))).toBe("ready");
  expect(waitsLongest([section("a", waiting(20)), section("b", waiting(5)), section("c", run())])?.card).toBe("b");
  expect(waitsLongest([section("c", run())])).toBeUndefined();
  expect(waitsSince(run())).toBeNull();
});

test("a section that is told stands so at once; an older answer does not put it back", () => {
  const queries = new QueryClient();
  queries.setQueryData<Bench>(["bench"], { sections: [section("clarinet"), section("flute")] });
  const now = () => queries.getQueryData<Bench>(["bench"])!.sections[0]!.runs.map((one) => one.step);
  hearing(queries)({ kind: "bench", run: run({ step: 2, taps: 7 }) });
  expect(now()).toEqual([2]);
  hearing(queries)({ kind: "bench", run: run({ step: 1, taps: 6 }) });
  expect(now()).toEqual([2]);
  hearing(queries)({ kind: "bench", run: run({ step: 3, taps: 8, done: true }) });
  expect(now()).toEqual([3]);
});

test("an answer that was on its way does not put a section back", async () => {
  const queries = new QueryClient();
  let answer: (bench: Bench) => void = () => undefined;
  const asked: Promise<Bench>[] = [];
  const ask = () => asked[asked.push(new Promise<Bench>((resolve) => (answer = resolve))) - 1]!;
  queries.setQueryData<Bench>(["bench"], { sections: [section("clarinet")] });
  const old = queries.fetchQuery({ queryKey: ["bench"], queryFn: ask }).catch(() => undefined);
  const late = answer;
  await putRun(queries, run({ step: 2, taps: 7 }));
  late({ sections: [section("clarinet")] });
  await old;
  expect(queries.getQueryData<Bench>(["bench"])!.sections[0]!.runs.map((one) => one.step)).toEqual([2]);
});

const tries = (...outcomes: string[]) => outcomes.map((outcome, id) => ({ id, outcome, at: AT, fixed_by: "" }));
const rung = (key: string, opened: boolean, ...outcomes: string[]): Rung =>
  ({
    key, title: key, opened, tries: tries(...outcomes),
    gate: { good: outcomes.slice(-5).filter((one) => one === "note").length, needs: 3, of: 5, stands: true, opened: false },
  }) as Rung; // prettier-ignore

test("the rung that is worked at is the first that is open and not through", () => {
  const firsts = (...rungs: Rung[]) => ({ rungs, checks: { squeak: [{ times: 2 }, { times: 1 }] } }) as unknown as Firsts;
  const through = rung("alone", true, "note", "note", "note", "thin", "thin", "thin");
  expect(passed(through)).toBe(true);
  expect(rungNow(firsts(through, rung("E4", true, "note"), rung("D4", false))).key).toBe("E4");
  expect(rungNow(firsts(through, rung("E4", true, "note", "note", "note"))).key).toBe("E4");
  const later = { ...rung("D4", true, "thin"), tries: [{ ...tries("thin")[0]!, at: "2026-09-01T10:05:00Z" }] } as Rung;
  expect(rungNow(firsts(through, rung("E4", true, "note"), later)).key).toBe("D4");
  expect(outOf(firsts(), "squeak")).toBe(3);
  expect(outOf(firsts(), "thin")).toBe(0);
});

test("the gate in words", () => {
  expect(gateWords(rung("E4", true, "note", "thin", "note"))).toEqual({
    rule: "3 good of the last 5 open the next",
    now: "now 2 of 5, a good one next opens it",
  });
  const off = rung("E4", true, "note");
  expect(gateWords({ ...off, gate: { ...off.gate, stands: false } }).rule).toBe("no gate: E4 and the next are open");
});

test("short lines stand where a note needs them", () => {
  expect([shortLines(-2), shortLines(-1), shortLines(0), shortLines(8), shortLines(9), shortLines(10), shortLines(-5), shortLines(12)]).toEqual([
    [-2], [], [], [], [], [10], [-2, -4], [10, 12],
  ]); // prettier-ignore
});

const row = (more: object) => ({ student: 1, last_at: null, days_left: null, due: true, today: false, applies: true, ...more });
const task = (key: string, every_days: number, more: object = {}): CareTask =>
  ({
    key,
    title: key,
    does: key,
    every_days,
    say: "",
    drops: 0,
    rice: 0,
    who: "student",
    shown: false,
    rows: [row({})],
    ...more,
  }) as CareTask;

test("what is due, in two or three words", () => {
  expect(dueWords(row({ days_left: 0 }), 3)).toBe("due today");
  expect(dueWords(row({ days_left: -1 }), 3)).toBe("1 day over");
  expect(dueWords(row({ days_left: 2, due: false }), 3)).toBe("in 2 days");
  expect(dueWords(row({ days_left: 0 }), 0)).toBe("due");
  expect(dueWords(row({ due: false }), 180)).toBe("not on record");
  expect(dueWords(row({ applies: false }), 3)).toBe("not this one");
  expect(dueWords(row({ applies: false }), 7, true)).toBe("not shown yet");
  expect([everyWords(0), everyWords(1), everyWords(7), everyWords(365)]).toEqual(["each time", "every day", "every 7 days", "once a year"]);
});

test("what students do comes first, what needs oil is said, and each task has a key of its own", () => {
  const tasks = [task("shop", 365, { who: "repair shop" }), task("oil", 3, { drops: 3 }), task("water", 0), task("wipe", 7)];
  expect(inOrder(tasks).map((one) => one.key)).toEqual(["water", "oil", "wipe", "shop"]);
  expect(saidFirst(tasks)?.key).toBe("oil");
  expect(lettersOf(inOrder(tasks), "hbo")).toEqual(["w", "i", "p", "s"]);
  expect(logWords(task("Oiled", 3), [])).toBe("Oiled, all");
  expect(logWords(task("Oiled", 3), ["Teodor", "Ada"])).toBe("Oiled, all but Teodor and Ada");
  expect(logWords(task("Oiled", 3), ["a", "b", "c"])).toBe("Oiled, all but 3");
});

const RATE = 8000;
const tone = (seconds: number, loud: number) => Float32Array.from({ length: seconds * RATE }, (_, i) => loud * Math.sin(i / 3));

test("what is heard is cut into tries, each with a little of the room before it", () => {
  const cut: number[] = [];
  const tries = new Tries(RATE, (samples) => cut.push(samples.length / RATE));
  const play = (seconds: number, loud: number) => {
    const sound = tone(seconds, loud);
    for (let i = 0; i < sound.length; i += 128) tries.hear(sound.slice(i, i + 128));
  };
  play(3, 0.001);
  play(0.6, 0.2);
  play(1, 0.001);
  play(0.3, 0.2);
  play(1, 0.001);
  expect(cut).toHaveLength(2);
  expect(cut[0]).toBeGreaterThan(1.3);
  expect(cut[0]).toBeLessThan(1.8);
  play(8, 0.2);
  expect(Math.max(...cut)).toBeLessThan(6.1);
});

test("samples go as 16 bit, and none is wider than that", () => {
  const view = new DataView(asBytes(Float32Array.from([0, 1, -1, 3, 0.5])));
  expect([0, 1, 2, 3, 4].map((i) => view.getInt16(2 * i, true))).toEqual([0, 32767, -32767, 32767, 16383]);
});

test("what was heard, in words", () => {
  expect(heardWords({ air_s: 0.4, tone_s: 0.2, hz: 1470.4, like: "squeak" })).toBe(
    "heard: air for 0.4 s, then 1470 Hz for 0.2 s, most like a squeak",
  );
  expect(heardWords({ air_s: 0, tone_s: 0, hz: null, like: "nothing" })).toBe("heard: hardly a sound, most like nothing");
});

test("the longest of what was measured, beside the guide of a mouthpiece", () => {
  const sounded = { tries: [{ length_s: null }, { length_s: 4.2 }, { length_s: 3.1 }] } as unknown as Rung;
  expect([longest(sounded), longest({ tries: [] } as unknown as Rung)]).toEqual([4.2, null]);
  const guide = (good_s: number, excellent_s: number) => guideWords({ good_s, excellent_s } as BenchCard["alone"]);
  expect([guide(8, 12), guide(0, 0), guideWords(null)]).toEqual(["8 s is good, 12 excellent", "", ""]);
});
