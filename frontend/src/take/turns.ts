import type { Edits, Report } from "../api/client";
import type { Grip } from "../breathscore/Grips";

type MovedTurn = Edits["turns"][number];
type Kind = MovedTurn["turn"];

export const BEAT_ONE = "beat_one";
const KINDS = [
  ["inhale_start", "the inhale begins", "start"],
  ["inhale_end", "full", "full"],
  ["exhale_start", "the exhale begins", "leave"],
  ["exhale_end", "the exhale ends", "end"],
] as const satisfies [Kind, string, Grip["at"]][];
const SAME_S = 0.03; // a turn shown where a move has put it
const APART_S = 0.02; // between two turns

/** What a person may move of the chosen breath: its turns between those beside them, and beat one where beats are known. */
export function gripsOf(report: Report, chosen: number, edits: Edits): Grip[] {
  const all = report.breaths.flatMap((breath, i) =>
    KINDS.flatMap(([kind, label, at]) => {
      const t_s = breath[`${kind}_s`];
      return t_s == null ? [] : [{ i, kind, label, at, t_s }];
    }),
  );
  const turns = all.flatMap(({ i, kind, label, at, t_s }, k): Grip[] => {
    if (i !== chosen) return [];
    const least_s = k > 0 ? all[k - 1]!.t_s : 0;
    const most_s = all[k + 1]?.t_s ?? report.clip.duration_s;
    return [{ key: kind, label, at, t_s, least_s, most_s, byHand: movedTo(edits.turns, kind, t_s) !== undefined }];
  });
  const first = report.beats.first_inhale_s;
  if (first === null) return turns;
  return [
    ...turns,
    {
      key: BEAT_ONE,
      label: "beat one",
      at: "beat",
      t_s: first,
      least_s: 0,
      most_s: report.clip.duration_s,
      byHand: edits.first_inhale_s !== null,
    },
  ];
}

const movedTo = (turns: MovedTurn[], kind: string, shown_s: number) =>
  turns.find((one) => one.turn === kind && Math.abs(one.t_s - shown_s) < SAME_S);

/** The edits with one more move. shown_s: where the turn, or beat one, stood before; a turn that is moved again, also before its
 *  first move is judged, keeps where the reading had put it. */
export function withMove(edits: Edits, key: string, shown_s: number, t_s: number): Edits {
  if (key === BEAT_ONE) return { ...edits, first_inhale_s: t_s };
  const before =
    movedTo(edits.turns, key, shown_s) ?? edits.turns.find((one) => one.turn === key && Math.abs(one.was_s - shown_s) < SAME_S);
  const others = edits.turns.filter((one) => one !== before);
  return { ...edits, turns: [...others, { turn: key as Kind, was_s: before?.was_s ?? shown_s, t_s }] };
}

/** Whether anything of the counts was put right by hand. */
export const putRight = ({ turns, first_inhale_s }: Edits) => turns.length > 0 || first_inhale_s !== null;

/** Far enough to be a move. */
export const isMove = (from_s: number, to_s: number) => Math.abs(to_s - from_s) >= APART_S / 2;
