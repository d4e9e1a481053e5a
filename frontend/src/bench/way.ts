import type { BenchCard, BenchStep, Run, Section } from "../api/client";

type Choice = BenchCard["choices"][number];

/** The choices that are switched at a step. */
export const choicesAt = (card: BenchCard, step: string): Choice[] => card.choices.filter((one) => one.step === step);

/** The way that stands for a choice: what was switched on the spot, else the programme's. */
export const wayOf = (card: BenchCard, run: Run | undefined, choice: Choice) => {
  const key = run?.chosen[choice.key] ?? card.chosen[choice.key];
  return choice.options.find((one) => one.key === key) ?? choice.options[0]!;
};

/** The step that is shown, with the sentence and the drawing of the way that stands. */
export function stepNow(card: BenchCard, run: Run): BenchStep | undefined {
  const step = card.steps.find((one) => one.key === run.steps[run.step]);
  if (!step) return undefined;
  const ways = choicesAt(card, step.key).map((choice) => wayOf(card, run, choice));
  return {
    ...step,
    say: ways.map((way) => way.say).find(Boolean) || step.say,
    drawing: ways.map((way) => way.drawing).find(Boolean) || step.drawing,
  };
}

/** The way after the one that stands, as the word of a tap. */
export function nextWay(card: BenchCard, run: Run, choice: Choice): string {
  const at = choice.options.indexOf(wayOf(card, run, choice));
  return `${choice.key}=${choice.options[(at + 1) % choice.options.length]!.key}`;
}

/** Seconds as minutes: 1:05. */
export const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, "0")}`;

/** Seconds that a step has taken, up to a moment of the server's clock. */
export function spent(run: Run, key: string, now_ms: number): number {
  const before = run.spent_s[key] ?? 0;
  if (!run.since || run.steps[run.step] !== key) return before;
  return before + Math.max((now_ms - Date.parse(run.since)) / 1000, 0);
}

/** Seconds gone and still to come: what lies ahead as the card says it, what runs at least as long as it has. */
export function minutesOf(card: BenchCard, run: Run, now_ms: number): { gone_s: number; left_s: number; planned_s: number } {
  const planned = (key: string) => card.steps.find((one) => one.key === key)?.seconds ?? 0;
  const gone_s = run.steps.reduce((sum, key) => sum + spent(run, key, now_ms), 0);
  const ahead = run.steps.slice(run.step);
  const left_s = ahead.reduce((sum, key, i) => sum + Math.max(planned(key) - (i === 0 ? spent(run, key, now_ms) : 0), 0), 0);
  return { gone_s, left_s, planned_s: run.steps.reduce((sum, key) => sum + planned(key), 0) };
}

/** Since when the chair that waits longest for help has waited, in ms; null where nobody waits. */
export const waitsSince = (run: Run | undefined) =>
  run && run.helping.length ? Math.min(...run.helping.map((one) => Date.parse(one.since))) : null;

/** The open way of a section in a phase. */
export const runOf = (section: Section | undefined, phase: Run["phase"]) =>
  section?.runs.filter((one) => one.phase === phase && !one.done).at(-1);

/** Where a section stands, in a few words; what it is called is the card's. */
export function standingWords(section: Section): string {
  const run = section.runs.filter((one) => !one.done).at(-1);
  if (!run) return section.runs.some((one) => one.done) ? "ready" : "not begun";
  if (run.stopped) return `kept at step ${run.step + 1} of ${run.steps.length}`;
  return `step ${run.step + 1} of ${run.steps.length}`;
}

/** The section that waits longest for help, else undefined. */
export const waitsLongest = (sections: Section[]): Section | undefined =>
  sections
    .map((one) => ({ one, since: Math.min(...one.runs.map((run) => waitsSince(run) ?? Infinity)) }))
    .filter(({ since }) => since < Infinity)
    .sort((a, b) => a.since - b.since)[0]?.one;
