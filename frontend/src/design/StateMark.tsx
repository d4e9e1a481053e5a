import type { State } from "../api/client";
import { colour } from "./tokens";

export type { State };

export const STATE_WORDS: Record<State, string> = {
  steady: "steady",
  watch: "watch",
  work: "work on this",
  unreadable: "not readable",
};

/** The four states by shape and colour together: solid disc, half disc, open triangle, dashed ring. */
export function StateMark({ state, size = 18 }: { state: State; size?: number }) {
  const ink = colour(state);
  return (
    <svg width={size} height={size} viewBox="-9 -9 18 18" role="img" aria-label={STATE_WORDS[state]}>
      {state === "steady" && <circle r="7.5" fill={ink} />}
      {state === "watch" && (
        <>
          <circle r="6.75" fill="none" stroke={ink} strokeWidth="1.75" />
          <path d="M0,-6.75 A6.75,6.75 0 0 0 0,6.75 Z" fill={ink} />
        </>
      )}
      {state === "work" && <path d="M0,-6.8 L7.2,6 L-7.2,6 Z" fill="none" stroke={ink} strokeWidth="2.2" strokeLinejoin="round" />}
      {state === "unreadable" && <circle r="6.75" fill="none" stroke={ink} strokeWidth="1.9" strokeDasharray="2.6 2.7" />}
    </svg>
  );
}

/** How far a reading is: a ring that fills. */
export function ProgressRing({ share, size = 18 }: { share: number; size?: number }) {
  const length = 2 * Math.PI * 6.5;
  return (
    <svg width={size} height={size} viewBox="-9 -9 18 18" aria-hidden>
      <circle r="6.5" fill="none" stroke={colour("hair")} strokeWidth="3" />
      <circle
        r="6.5"
        fill="none"
        stroke={colour("ink")}
        strokeWidth="3"
        strokeDasharray={`${length * share} ${length}`}
        transform="rotate(-90)"
      />
    </svg>
  );
}
