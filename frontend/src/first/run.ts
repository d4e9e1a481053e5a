/** A new teacher's first minutes, from the empty page to the first lesson. */
export const STEPS = ["name", "account", "class", "questions", "lesson"] as const;
export type Step = (typeof STEPS)[number];
export const STEP_WORDS: Record<Step, string> = {
  name: "name",
  account: "account",
  class: "class list",
  questions: "five questions",
  lesson: "first lesson",
};
/** When the run began, and when each step was done, ms; kept in this browser until the first lesson is planned. */
export type Run = { began_ms: number; done_ms: Partial<Record<Step, number>> };
export type Wedge = { step: Step; from_min: number; to_min: number; done: boolean };

const USUAL_MIN: Record<Step, number> = { name: 0.4, account: 0.6, class: 0.8, questions: 0.9, lesson: 1.3 };
const LONGEST_MS = 3_600_000; // a run left for longer is no run any more
const MINUTE_MS = 60_000;
const KEPT = "brevin-first";

/** The steps on a ruler of minutes: what is done as long as it took, in the order in which it was done; what is to come as long as it usually takes. */
export function wedgesOf(run: Run, now_ms: number): Wedge[] {
  const minutes = (at_ms: number) => Math.max(at_ms - run.began_ms, 0) / MINUTE_MS;
  const done = STEPS.filter((step) => run.done_ms[step] !== undefined).sort((a, b) => run.done_ms[a]! - run.done_ms[b]!);
  const wedges: Wedge[] = [];
  let from_min = 0;
  for (const step of done) {
    const to_min = Math.max(minutes(run.done_ms[step]!), from_min);
    wedges.push({ step, from_min, to_min, done: true });
    from_min = to_min;
  }
  from_min = Math.max(minutes(now_ms), from_min);
  for (const step of STEPS.filter((one) => run.done_ms[one] === undefined)) {
    wedges.push({ step, from_min, to_min: from_min + USUAL_MIN[step], done: false });
    from_min += USUAL_MIN[step];
  }
  return wedges;
}

/** The run with what is done now; the same one where nothing is new. A step that was done stays done. */
export function withDone(run: Run, done: Partial<Record<Step, boolean>>, now_ms: number): Run {
  const fresh = STEPS.filter((step) => done[step] && run.done_ms[step] === undefined);
  if (!fresh.length) return run;
  return { ...run, done_ms: { ...run.done_ms, ...Object.fromEntries(fresh.map((step) => [step, now_ms])) } };
}

/** What is kept of the run; null where there is none, it is over, or it was left long ago. */
export function keptRun(now_ms: number): Run | null {
  try {
    const run = JSON.parse(localStorage.getItem(KEPT) ?? "null") as Run | null;
    const over = !run || STEPS.every((step) => run.done_ms[step] !== undefined) || now_ms - run.began_ms > LONGEST_MS;
    return over ? null : run;
  } catch {
    return null;
  }
}

export const keepRun = (run: Run) => localStorage.setItem(KEPT, JSON.stringify(run));

/** Minutes and seconds as they are said. */
export const saidMinutes = (minutes: number): string => {
  const seconds = Math.round(minutes * 60);
  return seconds < 60 ? `${seconds} s` : `${Math.floor(seconds / 60)} min ${seconds % 60} s`;
};

const FIRST_FILMED = 5;
const MINUTES_EACH = 1.5;

/** What the first lesson still needs: letters that are to come back, whom to film first, where the camera stands. */
export function toComeOf(students: number, letters: number): [string, string][] {
  const first = Math.min(FIRST_FILMED, students);
  const filming = `${first} × ${MINUTES_EACH} = ${first * MINUTES_EACH} min`;
  return [
    ["letter about filming", letters ? `${letters} to hand out` : "every answer is there"],
    [first === 1 ? "first one to film" : `first ${first} to film`, letters ? `${filming}, once agreed` : filming],
    ["camera on its stand", "2.5 m from the chair"],
  ];
}
