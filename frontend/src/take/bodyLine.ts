import type { Report } from "../api/client";
import type { Lane } from "../breathscore/layout";
import { markOf, type Marked } from "./markedAs";
import { onTrunk, type ToPx } from "./onBody";

type Region = Exclude<Lane, "shoulder">;
/** How far each lane has moved from rest, percent of trunk; none where it was not seen. */
export type Moved = Partial<Record<Lane, number>>;

/** A place on the body's front, trunk lengths up from the hips and ahead of its axis; seen: whether its edge was followed and believed. */
export type Spot = { up: number; ahead: number; seen: boolean };

/** The middle of each region, and of the shoulders, on the trunk's axis. */
export const MIDDLE: Record<Lane, number> = { shoulder: 1.0, chest: 0.72, abdomen: 0.26 };
export const GROWS = 5; // the movement is drawn this many times larger

const REACHES = 0.18; // trunk: how far up and down a region's movement is drawn
const STEP = 0.03; // between places, trunk: as strips lie
const NEAR = 0.045; // a place this near to one that was followed is followed
const NECK: Spot = { up: 0.92, ahead: 0.12, seen: false }; // where the front ends that arms hide
const WAIST = 0.48; // up to here it is the belly's
const ROUNDED = 3; // neighbours on either side that a place is evened out over

/** The body's front as it was followed, from the belly up; nothing where no edge was looked at, as from the front. */
export function frontOf(report: Report): Spot[] {
  const { player, scale, view } = report;
  if (!player || !scale?.trunk_px || view === "front") return [];
  const edges = (["abdomen", "chest"] as const)
    .flatMap((lane) => (player.looked?.[lane] ?? []).filter(({ outline }) => outline))
    .map(({ x_px, y_px, believed }) => ({ ...onTrunk(report, x_px, y_px), seen: believed }))
    .toSorted((one, other) => one.up - other.up);
  const [lowest] = edges;
  if (!lowest || !edges.some(({ seen }) => seen)) return [];
  const known = (edges.at(-1)?.up ?? 1) < NECK.up - 2 * STEP ? [...edges, NECK] : edges;
  const count = Math.round(((known.at(-1)?.up ?? 0) - lowest.up) / STEP);
  return evened(Array.from({ length: count + 1 }, (_, i) => spotAt(known, lowest.up + i * STEP)));
}

/** A place between those that are known; followed where one that was is near. */
function spotAt(known: Spot[], up: number): Spot {
  const over = known.find((one) => one.up >= up) ?? known.at(-1)!;
  const under = known.findLast((one) => one.up <= up) ?? known[0]!;
  const share = over.up > under.up ? (up - under.up) / (over.up - under.up) : 0;
  const seen = known.some((one) => one.seen && Math.abs(one.up - up) <= NEAR);
  return { up, ahead: under.ahead + share * (over.ahead - under.ahead), seen };
}

/** A shirt's edge without its smallest folds. */
const evened = (spots: Spot[]): Spot[] =>
  spots.map((spot, i) => {
    const beside = spots.slice(Math.max(i - ROUNDED, 0), i + ROUNDED + 1);
    return { ...spot, ahead: beside.reduce((sum, one) => sum + one.ahead, 0) / beside.length };
  });

/** How much further ahead a place of the front is drawn, trunk lengths. */
export function pushed(up: number, moved: Moved): number {
  const of = (lane: Region) => (moved[lane] ?? 0) * Math.exp(-(((up - MIDDLE[lane]) / REACHES) ** 2));
  return (GROWS * (of("abdomen") + of("chest"))) / 100;
}

/** Everything that is drawn of the front at one moment, as paths: the front at rest; filled, what the belly has gone; belly and chest, firm where they were
 *  followed, and what of them was not. */
export function pathsOf(front: Spot[], moved: Moved, toPx: ToPx) {
  const still = front.map(({ up, ahead }) => toPx(up, ahead));
  const gone = front.map(({ up, ahead }) => toPx(up, ahead + pushed(up, moved)));
  const belly = front.filter(({ up, seen }) => up <= WAIST && seen).length;
  const until = front.filter(({ up }) => up <= WAIST).length;
  const runs = (kept: (i: number) => boolean) => lines(gone, (i) => kept(i) && kept(i + 1));
  return {
    rest: path(still),
    filled: belly > 1 ? `${path([...still.slice(0, until), ...gone.slice(0, until).toReversed()])} Z` : "",
    abdomen: runs((i) => !!front[i]?.seen && i < until),
    chest: runs((i) => !!front[i]?.seen && i >= until - 1),
    hidden: lines(gone, (i) => !(front[i]?.seen && front[i + 1]?.seen)),
  };
}

/** Lines through neighbours that belong together. joined: whether a place and the next one do. */
function lines(places: (readonly [number, number])[], joined: (i: number) => boolean): string {
  const last = places.length - 1;
  return places
    .map((place, i) => (i < last && joined(i) ? `${i > 0 && joined(i - 1) ? "" : `M${at(place)}`} L${at(places[i + 1]!)}` : ""))
    .join("");
}

const at = ([x, y]: readonly [number, number]) => `${x.toFixed(1)},${y.toFixed(1)}`;
const path = (places: (readonly [number, number])[]) => (places.length ? `M${places.map(at).join(" L")}` : "");

const CAP = 0.1; // trunk: radius of the line over a shoulder
const CAP_OPEN = 1.25; // radians to either side of straight up
const CAP_STEPS = 10;
const BESIDE_FRONT = 0.3; // trunk: from the axis to a shoulder that is seen from the front

/** The line over the shoulder, or over both from the front, at one moment. */
export function capPath(report: Report, moved: number, toPx: ToPx): string {
  const middles = report.view === "front" ? [-BESIDE_FRONT, BESIDE_FRONT] : [0];
  const turns = Array.from({ length: CAP_STEPS + 1 }, (_, i) => CAP_OPEN * ((2 * i) / CAP_STEPS - 1));
  const up = MIDDLE.shoulder + (GROWS * moved) / 100;
  return middles.map((beside) => path(turns.map((turn) => toPx(up + CAP * Math.cos(turn), beside + CAP * Math.sin(turn))))).join(" ");
}

/** How lanes are marked at a moment, the worst of each: what was seen of them lies outside what is steady. */
export function markedAt(report: Report, t_s: number): Map<Lane, Marked> {
  const marks = report.verdicts.flatMap(({ marks: own }) => own ?? []);
  const here = marks.filter(({ outside, from_s, to_s }) => outside && t_s >= from_s && t_s <= to_s);
  const found = here.flatMap(({ lane, state }) => {
    const marked = markOf(state);
    return lane === "count" || !marked ? [] : [[lane as Lane, marked] as const];
  });
  return new Map(found.toSorted(([, one], [, other]) => one.localeCompare(other))); // work after watch
}
