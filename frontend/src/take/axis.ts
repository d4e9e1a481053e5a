import type { Report } from "../api/client";
import { markOf, type Marked } from "./markedAs";

type Place = [number, number];

/** The instrument's line as it is drawn: from the mouth to its far end, what it is held against, the degrees between, and how those are marked. */
export type AxisShown = { from: Place; far: Place; against: Place; degrees: number; marked: Marked | null };

/** The angle that is judged: against level, or against the trunk where the instrument's rule goes by that. Null where no line was found. */
export function axisShown({ hold, player, verdicts }: Report): AxisShown | null {
  const ends = hold?.axis_px as [number, number, number, number] | null | undefined;
  if (!hold || !ends) return null;
  const [x, y, farX, farY] = ends;
  const long = Math.hypot(farX - x, farY - y);
  const judged = verdicts.find(({ criterion }) => criterion === "axis_level" || criterion === "axis_to_trunk");
  const marked = markOf(judged?.state);
  const from: Place = [x, y];
  const far: Place = [farX, farY];
  if (judged?.criterion === "axis_to_trunk" && player && hold.axis_to_trunk_deg) {
    const [upX, upY] = player.up as Place;
    return { from, far, against: [x - upX * long, y - upY * long], degrees: Math.abs(hold.axis_to_trunk_deg.value), marked };
  }
  const degrees = Math.abs(hold.instrument_axis_deg?.value ?? 0);
  const aside = Math.sign(farX - x) * long;
  const tilt = ((player?.tilt_deg ?? 0) * Math.PI) / 180; // level as the room has it, in the picture of a phone that stood tilted
  return { from, far, against: [x + aside * Math.cos(tilt), y + aside * Math.sin(tilt)], degrees, marked };
}

const OUT = 0.86; // of the line, from the mouth: where the angle is drawn
const STEPS = 8;
const UNEVEN = 0.012; // of the line's length: a pencil in a hand

/** The angle between both lines as a pencil draws it, and the middle of it. */
export function pencilled({ from: [x, y], far, against }: AxisShown): { path: string; middle: Place } {
  const angleOf = ([toX, toY]: Place) => Math.atan2(toY - y, toX - x);
  const start = angleOf(against);
  const way = Math.atan2(Math.sin(angleOf(far) - start), Math.cos(angleOf(far) - start)); // the short way round
  const long = Math.hypot(far[0] - x, far[1] - y);
  const at = (share: number): Place => {
    const radius = long * (OUT + UNEVEN * Math.sin(17 * share));
    const turned = start + way * share;
    return [x + radius * Math.cos(turned), y + radius * Math.sin(turned)];
  };
  const points = Array.from({ length: STEPS + 1 }, (_, i) => at(i / STEPS));
  return { path: `M${points.map(([px, py]) => `${px.toFixed(1)},${py.toFixed(1)}`).join(" L")}`, middle: at(0.5) };
}
