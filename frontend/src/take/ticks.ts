import type { Ticks } from "../api/client";

type State = Ticks["items"][number]["state"];

/** Tapped once it is fine, twice not yet, thrice it is cleared. */
export function nextState(state: State): State {
  if (state === null) return "fine";
  return state === "fine" ? "not_yet" : null;
}

/** The mark beside an item: what a verdict's mark would be. */
export const markOf = (state: State) => (state === "fine" ? ("steady" as const) : ("work" as const));

export const stateWords = (state: State) => (state === null ? "not looked at" : { fine: "fine", not_yet: "not yet" }[state]);

/** The rows that can be looked at: what belongs to the instrument at rest only where the clip shows it there, the back only of who sits with a side to it. */
export const shownOf = ({ items }: Ticks, shows: { rest: boolean; back: boolean }): Ticks => ({
  items: items.filter(({ near }) => (near === "rest" || near === "back" ? shows[near] : true)),
});

/** "5 of 6 looked at". */
export const lookedWords = ({ items }: Ticks) => `${items.filter((one) => one.state !== null).length} of ${items.length} looked at`;
