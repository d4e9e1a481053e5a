import type { ClassChanges, ClassList, ListRow, Member, Sits } from "../api/client";

/** A chair as it is drawn: somebody who sits there, or what a dropped list would make of it. */
export type Place = {
  key: string;
  name: string;
  instrument: string;
  member: Member | null;
  will: "stays" | "comes" | "moves here" | "moves" | "goes";
};

/** The band row by row, the nearest first, each from the left; and on its chairs what a list would change: nothing has changed yet. */
export function placesOf(members: Member[], rows: number[][], list: ClassList | null): Place[][] {
  const here = new Map(members.map((one) => [one.student.id, one]));
  const moves = new Set([...(list?.changed ?? []), ...(list?.elsewhere ?? [])].map((row) => row.id));
  const goes = new Set(list?.left.map((one) => one.id));
  const come = new Map([...(list?.changed ?? []), ...(list?.elsewhere ?? []), ...(list?.new ?? [])].map((row) => [row.number, row]));
  const will = (id: number) => {
    if (moves.has(id)) return "moves";
    return goes.has(id) ? "goes" : "stays";
  };
  const sitting = (id: number): Place[] => {
    const member = here.get(id);
    if (!member) return []; // of another group
    const { name, instrument } = member.student;
    return [{ key: String(id), name, instrument, member, will: will(id) }];
  };
  const coming = (row: ListRow | undefined): Place[] =>
    row
      ? [
          {
            key: `row ${row.number}`,
            name: row.name,
            instrument: row.instrument ?? "none",
            member: null,
            will: row.id ? "moves here" : "comes",
          },
        ]
      : [];
  const drawn = list
    ? list.chairs.map((row) => row.flatMap(({ student, number }) => (number ? coming(come.get(number)) : sitting(student ?? 0))))
    : rows.map((row) => row.flatMap(sitting));
  return drawn.filter((row) => row.length > 0);
}

/** Who sits beside each other and plays the same. at: the first of them in the row, from 0. */
export type Section = { instrument: string; at: number; places: Place[] };

/** The sections of a row. */
export function sectionsOf(row: Place[]): Section[] {
  const found: Section[] = [];
  row.forEach((place, at) => {
    const last = found.at(-1);
    if (last?.instrument === place.instrument) last.places.push(place);
    else found.push({ instrument: place.instrument, at, places: [place] });
  });
  return found;
}

const BEND_PX = 30;

/** How much lower the floor lies than in the middle of its row, pixels: rows bend round the teacher's stand. at: from the row's left end, in chairs. */
export function lowerBy(at: number, chairs: number, widest: number): number {
  const out = (2 * at - chairs) / Math.max(widest, 1);
  return Math.round(BEND_PX * out * out);
}

/** Where somebody sits, by rows as they are. */
export function sitsOf(rows: number[][], id: number): Sits | null {
  const row = rows.findIndex((one) => one.includes(id));
  return row < 0 ? null : { row: row + 1, chair: rows[row]!.indexOf(id) + 1 };
}

/** What puts a moved chair back, and no other. Whose row is gone with them needs all rows as they were. */
export function putBack(before: number[][], id: number): ClassChanges {
  const sits = sitsOf(before, id);
  return sits && before[sits.row - 1]!.length > 1 ? { sits: [{ id, sits }] } : { rows: before };
}

export type Way = "left" | "right" | "behind" | "before";

/** The chair one step that way, null where there is none. Behind the last row is a row of one's own. */
export function stepped(rows: number[][], id: number, way: Way): Sits | null {
  const sits = sitsOf(rows, id);
  if (!sits) return null;
  const { row, chair } = sits;
  const own = rows[row - 1]!;
  if (way === "left" || way === "right") {
    const next = chair + (way === "left" ? -1 : 1);
    return next < 1 || next > own.length ? null : { row, chair: next };
  }
  const next = row + (way === "behind" ? 1 : -1);
  if (next < 1 || (next > rows.length && own.length === 1)) return null;
  return { row: next, chair: Math.min(chair, (rows[next - 1]?.length ?? 0) + 1) };
}

/** A chair on the screen: its middle. */
export type Spot = { id: number; x: number; y: number };
export type Over = { id: number; side: "before" | "after" };

/** Beside whom a chair would be put that is held there; null above everybody: behind the last row. */
export function over(spots: Spot[], held: number, x: number, y: number, high: number): Over | null {
  const others = spots.filter(({ id }) => id !== held);
  if (!others.length || y < Math.min(...others.map((one) => one.y)) - high) return null;
  const far = (one: Spot) => Math.abs(one.x - x) + 3 * Math.abs(one.y - y); // a row is meant before a chair of it
  const near = others.reduce((a, b) => (far(b) < far(a) ? b : a));
  return { id: near.id, side: x < near.x ? "before" : "after" };
}

/** The chair that is meant by it; null where it is the one it came from. */
export function sitsBeside(rows: number[][], held: number, where: Over | null): Sits | null {
  const [last, own] = [rows.at(-1), sitsOf(rows, held)];
  if (!where) return last?.length === 1 && last[0] === held ? null : { row: rows.length + 1, chair: 1 };
  const beside = sitsOf(
    rows.map((row) => row.filter((id) => id !== held)),
    where.id,
  );
  if (!beside) return null;
  const sits = { row: beside.row, chair: beside.chair + (where.side === "after" ? 1 : 0) };
  return sits.row === own?.row && sits.chair === own.chair ? null : sits;
}
