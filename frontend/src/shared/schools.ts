import type { Method } from "../api/client";

export type Question = Method["questions"][number]["question"];

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
export const SCHOOLS: Record<string, { title: string; about: string }> = {
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
