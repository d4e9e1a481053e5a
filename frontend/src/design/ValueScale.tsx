import type { State } from "./StateMark";
import { colour } from "./tokens";

const WIDTH = 128;

type Props = { value: number; uncertainty: number; limits: number[]; state: State; label: string; others?: number[] };

/** A value on its scale: a rule with the thresholds as ticks and a stroke as wide as the uncertainty; the others it stands among are dots. */
export function ValueScale({ value, uncertainty, limits, state, label, others = [] }: Props) {
  const reach = [...limits, ...others, value - uncertainty, value + uncertainty];
  const low = Math.min(...reach);
  const high = Math.max(...reach);
  const pad = 0.18 * (high - low || 1);
  const at = (v: number) => ((v - low + pad) / (high - low + 2 * pad)) * WIDTH;
  const wide = Math.max(at(value + uncertainty) - at(value - uncertainty), 5);
  return (
    <svg width={WIDTH} height="18" viewBox={`0 0 ${WIDTH} 18`} role="img" aria-label={label}>
      <line x1="0" x2={WIDTH} y1="9" y2="9" stroke={colour("hair")} strokeWidth="1.5" />
      {limits.map((limit) => (
        <line key={limit} x1={at(limit)} x2={at(limit)} y1="4" y2="14" stroke={colour("soft")} strokeWidth="1.25" />
      ))}
      {others.map((other, i) => (
        <circle key={i} cx={at(other)} cy="9" r="2.2" fill={colour("ink")} />
      ))}
      <line
        x1={at(value) - wide / 2 + 2.5}
        x2={at(value) + wide / 2 - 2.5}
        y1="9"
        y2="9"
        stroke={colour(state)}
        strokeWidth="5.5"
        strokeLinecap="round"
      />
    </svg>
  );
}
