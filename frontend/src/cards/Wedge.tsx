import type { Card } from "../api/client";
import { colour } from "../design/tokens";
import { raised } from "../film/counting";
import { marksOf } from "./draft";

type WedgeProps = {
  card: Card;
  x: (beat: number) => number;
  middle: number;
  half: number;
  soft?: boolean;
  dashed?: boolean;
  hold?: boolean;
};

/** One breath of a card: filled while the air comes in, a line while it waits, outlined while it goes out, a line while it stays empty. hold: the
 * instrument's way up, along and down instead. */
export function Wedge({ card, x, middle, half, soft = false, dashed = false, hold = false }: WedgeProps) {
  const { full, leave, out, rest } = marksOf(card);
  const ink = colour(soft ? "soft" : "ink");
  const [top, bottom] = [middle - half, middle + half];
  const line = {
    fill: "none",
    stroke: ink,
    strokeWidth: 1.6,
    strokeLinejoin: "round" as const,
    strokeDasharray: dashed ? "4 4" : undefined,
  };
  if (hold) return <path d={raised(x(0), x(full), x(out), x(rest), bottom, top)} {...line} strokeWidth={2.2} />;
  return (
    <g>
      <path d={`M${x(0)},${middle} L${x(full)},${top} V${bottom} Z`} {...line} fill={dashed ? "none" : ink} />
      {leave > full && <path d={`M${x(full)},${middle} H${x(leave)}`} {...line} />}
      <path
        d={`M${x(leave)},${top} L${x(out)},${middle} L${x(leave)},${bottom} Z`}
        {...line}
        strokeDasharray={card.exhale_beats === null ? "2 4" : line.strokeDasharray}
      />
      {rest > out && <path d={`M${x(out)},${middle} H${x(rest)}`} {...line} />}
    </g>
  );
}
