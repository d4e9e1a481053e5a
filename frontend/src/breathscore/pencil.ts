/** A line drawn by hand: slightly uneven, the same each time for the same place. */
export function stroke(fromX: number, toX: number, y: number, wobble = 1.1): string {
  const steps = Math.max(3, Math.round((toX - fromX) / 22));
  const points = Array.from({ length: steps + 1 }, (_, i) => {
    const x = fromX + ((toX - fromX) * i) / steps;
    return `${x.toFixed(1)},${(y + wobble * uneven(x * 0.37 + y)).toFixed(2)}`;
  });
  return `M${points.join(" L")}`;
}

/** A bracket over a stretch: down at both ends. */
export function bracket(fromX: number, toX: number, y: number, drop = 7): string {
  return `M${fromX.toFixed(1)},${y + drop} L${stroke(fromX, toX, y).slice(1)} L${toX.toFixed(1)},${y + drop}`;
}

const uneven = (seed: number) => {
  const value = Math.sin(seed * 12.9898) * 43758.5453;
  return (value - Math.floor(value)) * 2 - 1;
};
