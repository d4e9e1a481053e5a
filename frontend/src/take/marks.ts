import type { Ticks } from "../api/client";
import type { Part } from "./Still";

/** A place on a still, hundredths of its width and height. */
export type Spot = [number, number];

/** Where a body's mouth or hand is, and how its trunk lies: px of the clip. ahead: +1 where it faces the picture's right, 0 from the front. */
export type Body = { trunk_px: number; ahead: number };

type Where = Ticks["items"][number]["spot"];

/** Where an item is looked at, px of the clip. */
export function placeOf([x, y]: number[], { ahead, beside, up }: Where, body: Body): [number, number] {
  const along = body.ahead === 0 ? beside : body.ahead * ahead;
  return [(x ?? 0) + along * body.trunk_px, (y ?? 0) - up * body.trunk_px];
}

/** A place of the clip on a square still, never outside it. */
export const onStill = ([x, y]: [number, number], part: Part): Spot => [
  Math.min(Math.max((100 * (x - part.x)) / part.width, 0), 100),
  Math.min(Math.max((100 * (y - part.y)) / part.width, 0), 100),
];

const MIDDLE: Spot = [50, 43]; // over the words at the still's foot
const RADIUS = 35;
const TURNS = 24; // ways to turn the marks about the middle that are tried
const CLEAR = 17; // a mark nearer to a place covers what is looked at there

/** Where the marks stand, one for each place that is looked at: evenly about the middle of the still, with short leads that do not cross, none on a place. */
export function marksAround(places: Spot[]): Spot[] {
  const order = places.map((_, i) => i).sort((a, b) => angle(places[a]!) - angle(places[b]!));
  let best: Spot[] = [];
  let least = Infinity;
  for (let turn = 0; turn < TURNS; turn++) {
    const spots: Spot[] = [];
    order.forEach((i, rank) => {
      spots[i] = onRing(2 * Math.PI * (turn / TURNS + rank / order.length));
    });
    const cost = places.reduce((sum, place, i) => sum + apart(place, spots[i]!), 0) + covered(spots, places);
    if (cost < least) [least, best] = [cost, spots];
  }
  return best;
}

const onRing = (turned: number): Spot => [MIDDLE[0] + RADIUS * Math.cos(turned), MIDDLE[1] + RADIUS * Math.sin(turned)];
const angle = ([x, y]: Spot) => Math.atan2(y - MIDDLE[1], x - MIDDLE[0]);
const apart = ([x, y]: Spot, [otherX, otherY]: Spot) => Math.hypot(x - otherX, y - otherY);
const FAR = 1000; // costs more than any lead
const covered = (spots: Spot[], places: Spot[]) => FAR * spots.filter((spot) => places.some((place) => apart(spot, place) < CLEAR)).length;
