import type { Firsts, Heard, Outcome, Rung } from "../api/client";

/** The rung that is worked at: of those that may be tried and are not through the one that was tried last, else the first; where all are through the last. */
export function rungNow(firsts: Firsts): Rung {
  const open = firsts.rungs.filter((one) => one.opened);
  const ahead = open.filter((one) => !passed(one));
  const latest = (one: Rung) => Math.max(0, ...one.tries.map((made) => Date.parse(made.at)));
  const tried = [...ahead].sort((a, b) => latest(b) - latest(a))[0];
  return (tried && latest(tried) > 0 ? tried : ahead[0]) ?? open.at(-1) ?? firsts.rungs[0]!;
}

/** Whether a rung once had as many good tries as its gate needs, whether or not a gate stands there. */
export function passed({ tries, gate }: Rung): boolean {
  return tries.some(
    (_, i) => tries.slice(Math.max(0, i + 1 - gate.of), i + 1).filter((one) => one.outcome === "note").length >= gate.needs,
  );
}

/** The gate in words. */
export function gateWords({ gate, title }: Rung): { rule: string; now: string } {
  const rule = gate.stands ? `${gate.needs} good of the last ${gate.of} open the next` : `no gate: ${title} and the next are open`;
  if (!gate.stands) return { rule, now: `${gate.good} of the last ${gate.of} good` };
  if (gate.opened) return { rule, now: "it is open" };
  return { rule, now: `now ${gate.good} of ${gate.of}${gate.good === gate.needs - 1 ? ", a good one next opens it" : ""}` };
}

/** How often a check was the reason, of all that was fixed after such a sound. */
export function outOf(firsts: Firsts, outcome: Outcome): number {
  return (firsts.checks[outcome] ?? []).reduce((sum, one) => sum + one.times, 0);
}

/** A word as what it is called in a list of parts: the part alone, or a note. */
export const rungTitle = (rung: Rung) => (rung.key === "alone" ? rung.title : rung.key.replace(/ ?\d$/, ""));

const LIKE: Record<Outcome, string> = {
  nothing: "nothing",
  only_air: "only air",
  squeak: "a squeak",
  thin: "a thin tone",
  gurgling: "gurgling",
  note: "the note",
};

/** What the microphone heard, in words: a suggestion. */
export function heardWords({ air_s, tone_s, hz, like }: Heard): string {
  const air = air_s >= 0.1 ? `air for ${air_s.toFixed(1)} s` : "";
  const tone = hz !== null && tone_s >= 0.05 ? `${Math.round(hz)} Hz for ${tone_s.toFixed(1)} s` : "";
  return `heard: ${[air, tone].filter(Boolean).join(", then ") || "hardly a sound"}, most like ${LIKE[like]}`;
}
