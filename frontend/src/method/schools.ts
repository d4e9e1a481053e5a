import type { Method, Preview } from "../api/client";

export type Question = Method["questions"][number]["question"];
export type Answers = Method["answers"];

type Words = { title: string; about: string };

/** What is asked, and what an answer changes. */
export const QUESTIONS: Record<Question, { title: string; changes: string }> = {
  breathing_in: { title: "Breathing in", changes: "With 1, ribs that follow are fine. With 2, the same breath is marked watch." },
  breathing_out: { title: "Breathing out", changes: "The shape an exhale is held against. With 3, how evenly it goes is not judged." },
  first_sounds: { title: "First sounds", changes: "Kept for the first notes. No clip is judged by it; the large brass never waits." },
  tongue: { title: "Tongue", changes: "Kept for the first notes. No clip is judged by it." },
  practice: { title: "Practice", changes: "Kept for the practice sheets. No clip is judged by it." },
  between: { title: "Between in and out", changes: "How long it may stand still, beyond what the card has, before it is marked." },
  fullness: { title: "Filling", changes: "Where counts are only time, who is full early and waits is not marked." },
};
export const SCHOOLS: Record<string, Words> = {
  belly_then_ribs: { title: "Belly, then ribs", about: "shoulders stay down" },
  belly_only: { title: "Only the belly", about: "ribs stay quiet" },
  slow_and_even: { title: "Slow and even", about: "belly lets go slowly" },
  let_fall: { title: "Let it fall out", about: "a big sigh, then rest" },
  small_pushes: { title: "In small pushes", about: "on the beat" },
  one_part: { title: "One part first", about: "mouthpiece or head" },
  whole: { title: "The whole at once", about: "from the first day" },
  air_first: { title: "Air starts the note", about: "tongue weeks later" },
  at_once: { title: "Tongue at once", about: "from the first day" },
  every_day: { title: "Every day", about: "many rounds" },
  most_days: { title: "Most days", about: "a few good rounds" },
  now_and_then: { title: "Now and then", about: "short reminders" },
  no_pause: { title: "No pause", about: "a quarter beat at most" },
  short_set: { title: "A short set", about: "set, then let go: half a beat" },
  counted_pause: { title: "A counted pause", about: "practised: a beat more than the card has" },
  over_all_counts: { title: "Over all counts", about: "a little on every count" },
  counts_are_time: { title: "Counts are only time", about: "full early is fine, the turn is on the count" },
};
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

/** The open questions answered as usual, the others as they are. */
export const withUsual = (method: Method): Answers => ({
  ...Object.fromEntries(askedOf(method).map((one) => [one.question, one.usual])),
  ...method.answers,
});

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
