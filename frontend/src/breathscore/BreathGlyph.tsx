import type { State } from "../api/client";
import { colour } from "../design/tokens";
import { stroke } from "./pencil";

type Props = { state: State | null; outside?: boolean; width?: number };

/** One breath as small as it gets: filled where it is good, hollow where it is not, with the pencil under a fault; dotted where nothing could be said. */
export function BreathGlyph({ state, outside = false, width = 24 }: Props) {
  const middle = width / 2;
  const shape = `M1,8 L${middle},2.5 L${width - 1},8 L${middle},13.5 Z`;
  return (
    <svg width={width} height="20" viewBox={`0 0 ${width} 20`} aria-hidden>
      {state === null || state === "unreadable" ? (
        <path d={shape} fill="none" stroke={colour("soft")} strokeWidth="1.2" strokeDasharray="1.5 2.5" />
      ) : (
        <path
          d={shape}
          fill={state === "steady" ? colour("ink") : "none"}
          stroke={colour("ink")}
          strokeWidth="1.3"
          strokeLinejoin="round"
        />
      )}
      {outside && state !== "steady" && state !== null && (
        <path d={stroke(3, width - 3, 17.5, 0.7)} fill="none" stroke={colour(state)} strokeWidth="2.4" strokeLinecap="round" />
      )}
    </svg>
  );
}
