import type { Report, Result } from "../api/client";

type Limits = Record<string, number> | null | undefined;
/** Where a value stands between its limits: 0 where steady ends, 1 where work begins, less is better; about: how sure, in the same measure. */
export type Stand = { at: number; about: number };

/** Where a value stands on the worse of its sides; null where its limits leave no way between steady and work. */
export function standOf(value: number, half: number, limits: Limits): Stand | null {
  if (!limits) return null;
  const sides = (["low", "high"] as const).flatMap((side): Stand[] => {
    const [steady, work] = [limits[`steady_${side}`], limits[`work_${side}`]];
    if (steady === undefined || work === undefined || steady === work) return [];
    return [{ at: (value - steady) / (work - steady), about: Math.abs(half / (work - steady)) }];
  });
  return sides.toSorted((a, b) => b.at - a.at)[0] ?? null;
}

/** The stands of a row, one a day; null where nothing was read. */
export const standsOf = (criterion: string, cells: (Result | null)[], reports: (Report | undefined)[]) =>
  cells.map((cell, i) => {
    const limits = reports[i]?.verdicts.find((one) => one.criterion === criterion)?.threshold as Limits;
    return cell?.value == null ? null : standOf(cell.value, cell.half_width ?? 0, limits);
  });

export const ROW_PX = 56;
const EDGE_PX = 11;
const SPAN: readonly [number, number] = [-0.7, 1.7]; // of what is drawn: far off is at the edge
export const MARK_AT = 0.08; // of a column, where its mark stands

/** Height in the row: up is better. */
export function heightOf(at: number): number {
  const share = (Math.min(Math.max(at, SPAN[0]), SPAN[1]) - SPAN[0]) / (SPAN[1] - SPAN[0]);
  return EDGE_PX + share * (ROW_PX - 2 * EDGE_PX);
}

export type Piece = { from: [number, number]; to: [number, number]; above: [number, number]; below: [number, number]; gap: boolean };

/** What of the line through a row's marks lies in one column: x in shares of its width, y px; above, below: the edges of how sure it is at both ends; gap: a
 * day between was not read. */
export function piecesIn(stands: (Stand | null)[], column: number): Piece[] {
  const seen = stands.flatMap((one, day) => (one ? [{ ...one, x: day + MARK_AT, day }] : []));
  return seen.slice(1).flatMap((right, i): Piece[] => {
    const left = seen[i]!;
    const [from, to] = [Math.max(left.x, column), Math.min(right.x, column + 1)];
    if (from >= to) return [];
    const of = (x: number, pick: (one: Stand) => number) => {
      const share = (x - left.x) / (right.x - left.x);
      return heightOf(pick(left)) + share * (heightOf(pick(right)) - heightOf(pick(left)));
    };
    const edge = (way: number): [number, number] => [
      of(from, (one) => one.at + way * one.about),
      of(to, (one) => one.at + way * one.about),
    ];
    return [
      {
        from: [from - column, of(from, ({ at }) => at)],
        to: [to - column, of(to, ({ at }) => at)],
        above: edge(-1),
        below: edge(1),
        gap: right.day - left.day > 1,
      },
    ];
  });
}
