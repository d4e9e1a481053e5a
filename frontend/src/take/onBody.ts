import type { Report } from "../api/client";

type Px = readonly [number, number];
/** From a place on the body, trunk lengths up from the hips and ahead of its axis, to the clip's pixels. */
export type ToPx = (up: number, ahead: number) => Px;
/** The same at a moment: a trunk that sinks, or a camera that moves, takes it along. */
export type OnBody = (t_s: number) => ToPx;

/** How far a place of the clip lies up from the hips and ahead of the trunk's axis as it was at first, trunk lengths. */
export function onTrunk({ player, scale }: Report, x_px: number, y_px: number): { up: number; ahead: number } {
  const off = [x_px, y_px].map((one, side) => (one - (player?.hip_px[side] ?? 0)) / (scale?.trunk_px || 1)) as [number, number];
  const along = (way: number[]) => off[0] * way[0]! + off[1] * way[1]!;
  return { up: along(player?.up ?? [0, -1]), ahead: along(player?.forward ?? [1, 0]) };
}

/** Value of a trace at a time, straight between its samples; null outside or where it was not seen. */
export function valueAt(times: number[], values: number[], t_s: number): number | null {
  const first = times[0];
  const second = times[1];
  if (!values.length || first === undefined || second === undefined) return null;
  const place = (t_s - first) / (second - first);
  const low = Math.min(Math.max(Math.floor(place), 0), values.length - 1);
  const high = Math.min(low + 1, values.length - 1);
  const part = Math.min(Math.max(place - low, 0), 1);
  return values[low]! * (1 - part) + values[high]! * part;
}

/** Where places of the body are in the clip; null where nobody was found. */
export function onBody({ player, scale }: Report): OnBody | null {
  const trunk = scale?.trunk_px;
  if (!player || !trunk) return null;
  const [ux, uy] = player.up as [number, number];
  const [fx, fy] = player.forward as [number, number];
  const [hx, hy] = player.hip_px as [number, number];
  const axes = (player.axes ?? []).map(({ t_s, lines_px }) => ({ t_s, places: lines_px[0] as unknown as Px[] }));
  if (!axes.length) return () => (up, ahead) => [hx + trunk * (ux * up + fx * ahead), hy + trunk * (uy * up + fy * ahead)];
  const times = axes.map(({ t_s }) => t_s);
  const courses = axes[0]!.places.map((_, i) => [0, 1].map((side) => axes.map(({ places }) => places[i]![side]!)));
  const facing = Math.sign(ux * fy - uy * fx);
  return (t_s) =>
    alongAxis(
      courses.map(([x, y]) => [valueAt(times, x!, t_s)!, valueAt(times, y!, t_s)!] as const),
      trunk,
      facing,
    );
}

/** Beside an axis that bends: up along it, straight on beyond its ends, and ahead at a right angle to it. facing: 1 where that is a quarter turn clockwise. */
function alongAxis(axis: Px[], trunk: number, facing: number): ToPx {
  const last = axis.length - 1;
  return (up, ahead) => {
    const piece = Math.min(Math.max(Math.floor(up * last), 0), last - 1);
    const [from, to] = [axis[piece]!, axis[piece + 1]!];
    const way: Px = [to[0] - from[0], to[1] - from[1]];
    const part = up * last - piece;
    const beside = (facing * trunk * ahead) / Math.hypot(...way);
    return [from[0] + part * way[0] - beside * way[1], from[1] + part * way[1] + beside * way[0]];
  };
}
