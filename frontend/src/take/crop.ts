import type { Report } from "../api/client";

export type Crop = { left: number; top: number; width: number; height: number };

const ABOVE_HIP = 1.95; // trunk lengths: shoulders at 1, then head
const BELOW_HIP = 0.5;
const AHEAD = 0.35;

/** The part of the clip's picture that is shown, px of the clip: head, trunk and what is in front of them, in the shape of its place; never outside. */
export function cropOf(report: Report, shape: number): Crop {
  const { width_px: width, height_px: height } = report.clip;
  const { player, scale } = report;
  const all = fitted(width, height, shape);
  if (!player || !scale?.trunk_px) return { ...all, left: (width - all.width) / 2, top: (height - all.height) / 2 };
  const trunk = scale.trunk_px;
  const [hipX, hipY] = player.hip_px as [number, number];
  const [forward] = player.forward as [number, number];
  const lying = Math.abs(player.up[1] ?? -1) < 0.5;
  const wanted = lying ? all.height : Math.min(trunk * (ABOVE_HIP + BELOW_HIP), all.height);
  const size = { width: wanted * shape, height: wanted };
  const middle = hipX + forward * AHEAD * trunk;
  const bottom = lying ? hipY + wanted / 2 : hipY + BELOW_HIP * trunk;
  return { ...size, left: inside(middle - size.width / 2, width - size.width), top: inside(bottom - wanted, height - wanted) };
}

/** The largest part of a picture that has a shape. */
function fitted(width: number, height: number, shape: number) {
  return width / height > shape ? { width: height * shape, height } : { width, height: width / shape };
}

const inside = (value: number, most: number) => Math.min(Math.max(value, 0), Math.max(most, 0));
