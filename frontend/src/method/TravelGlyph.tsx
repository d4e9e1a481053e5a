import { colour } from "../design/tokens";

const WIDTH = 40;
const PER_PCT = 4; // of trunk, points of the drawing
const MOST_PCT = 4;

const hump = (y: number, pct: number) => {
  const top = y - PER_PCT * Math.max(-MOST_PCT, Math.min(MOST_PCT, pct));
  return `M1,${y} C9,${y} 12,${top} 20,${top} S31,${y} ${WIDTH - 1},${y}`;
};

type Travel = { abdomen: number | null; chest: number | null; shoulder: number | null };

/** A take's middle breath as the three marks: how far shoulders, chest and abdomen went, on one scale; what was not seen is left out. */
export function TravelGlyph({ abdomen, chest, shoulder }: Travel) {
  const line = { stroke: colour("ink"), fill: "none" };
  return (
    <svg width={WIDTH} height={58} viewBox={`0 0 ${WIDTH} 58`} aria-hidden>
      {shoulder !== null && <path d={hump(16, shoulder)} {...line} strokeWidth="1.2" strokeDasharray="3 2" />}
      {chest !== null && <path d={hump(36, chest)} {...line} strokeWidth="1.8" />}
      {abdomen !== null && <path d={`${hump(56, abdomen)} Z`} fill={colour("ink")} />}
    </svg>
  );
}
