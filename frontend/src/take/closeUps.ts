import type { Report, Ticks } from "../api/client";
import { onStill, placeOf, type Body, type Spot } from "./marks";
import { around, type Part } from "./Still";

type Item = Ticks["items"][number];
type Near = Item["near"];
type StillSeen = NonNullable<NonNullable<Report["hold"]>["hands"]>["stills"][number];

/** A part of a still, large, and where on it each of its rows is looked at. number: of the row in the list. */
export type CloseUp = { t_s: number; words: string; label: string; part: Part; places: { number: number; item: Item; at: Spot }[] };

const CLOSE_TRUNKS = 0.75; // of the picture around mouth or hand
const WIDE_TRUNKS = 1.5; // around the back, and the instrument at rest
const NEARER = 0.5; // of the way from the key point to what is looked at, in the middle of a close-up

/** The still that is looked at, with the instrument up where there is one, and that of rest. */
export function stillsOf(report: Report) {
  const stills = report.hold?.hands?.stills ?? [];
  return { playing: stills.find(({ kind }) => kind === "playing") ?? stills.at(-1), rest: stills.find(({ kind }) => kind === "rest") };
}

/** Whether the back is seen while playing: of who sits with a side to the camera. */
export const showsBack = (report: Report) =>
  report.view !== "front" && report.position === "seated" && stillsOf(report).playing?.kind === "playing";

/** Between both hands. */
const middleOf = ({ left_hand_px: left, right_hand_px: right }: StillSeen) => [0, 1].map((i) => ((left[i] ?? 0) + (right[i] ?? 0)) / 2);

const KEY_POINTS: Record<Near, (seen: StillSeen, hip_px: number[]) => number[]> = {
  mouth: ({ mouth_px }) => mouth_px,
  left_hand: ({ left_hand_px }) => left_hand_px,
  right_hand: ({ right_hand_px }) => right_hand_px,
  back: (_, hip_px) => hip_px,
  rest: middleOf,
};

/** The close-ups of a take, in the order of the rows; none where nobody was found. */
export function closeUpsOf(items: Item[], report: Report): CloseUp[] {
  const { playing, rest } = stillsOf(report);
  const { player, scale, clip } = report;
  if (!player || !scale?.trunk_px) return [];
  const body: Body = { trunk_px: scale.trunk_px, ahead: report.view === "front" ? 0 : Math.sign(player.forward[0] ?? 0) };
  const closeUp = (seen: StillSeen | undefined, words: string, label: string, parts: Near[], wide = CLOSE_TRUNKS): CloseUp[] => {
    const looked = items.flatMap((item, i) => (parts.includes(item.near) ? [{ number: i + 1, item }] : []));
    const first = looked[0]?.item;
    if (!seen || !first) return [];
    const middle = parts.length > 1 ? middleOf(seen) : KEY_POINTS[first.near](seen, player.hip_px);
    const { ahead, up } = first.spot;
    const at = placeOf(middle, { ahead: NEARER * ahead, beside: 0, up: first.near === "back" ? up : 0 }, body);
    const part = around(at, wide * body.trunk_px, 1, clip);
    const placed = ({ near, spot }: Item) => onStill(placeOf(KEY_POINTS[near](seen, player.hip_px), spot, body), part);
    return [{ t_s: seen.t_s, words, label, part, places: looked.map((one) => ({ ...one, at: placed(one.item) })) }];
  };
  return [
    ...closeUp(playing, "mouth", "the mouth", ["mouth"]),
    ...closeUp(playing, "hands", "the hands", ["left_hand", "right_hand"]),
    ...closeUp(playing, "back", "the back", ["back"], WIDE_TRUNKS),
    ...closeUp(rest, "rest", "the instrument at rest", ["rest"], WIDE_TRUNKS),
  ];
}
