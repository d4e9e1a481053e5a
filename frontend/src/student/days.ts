import type { Breath, JudgedRow, Report, Result, State, Take } from "../api/client";
import { LANES, restOf, type Lane } from "../breathscore/layout";

/** One day of a student's record: the day's last take that was read, else its last; others: the rest of that day's takes, the oldest first. */
export type Day = { day: string; take: Take; others: Take[] };
/** A row of the record: one criterion over the days that are shown. */
export type Row = { criterion: string; title: string; unit: string; cells: (Result | null)[] };

/** The days on which a student was filmed, the oldest first. zone: the programme's time zone, whatever clock this screen goes by. */
export function daysOf(takes: Take[], zone: string): Day[] {
  const asDay = new Intl.DateTimeFormat("en-CA", { timeZone: zone, year: "numeric", month: "2-digit", day: "2-digit" }); // 2026-05-14
  const byDay = new Map<string, Take[]>();
  for (const take of takes) {
    const day = asDay.format(new Date(take.made_at));
    byDay.set(day, [...(byDay.get(day) ?? []), take]);
  }
  const days = [...byDay].map(([day, own]) => {
    const newest = own.toSorted((a, b) => b.made_at.localeCompare(a.made_at));
    const take = newest.find(({ state }) => state === "read") ?? newest[0]!;
    return { day, take, others: newest.filter((one) => one !== take).toReversed() };
  });
  return days.toSorted((a, b) => a.day.localeCompare(b.day));
}

/** So many days to the newest that is shown; back: how many days that is before the last. */
export const windowOf = (days: Day[], most: number, back: number) => days.slice(Math.max(days.length - back - most, 0), days.length - back);

const WEIGHT: Record<State, number> = { work: 0, watch: 1, steady: 2, unreadable: 3 };
const saidOf = (cell: Result | null): State => (cell === null ? "steady" : ((cell.overruled || cell.state) as State));

/** What was judged on the days that are shown: rows with a mark that is not steady first, by the newest of them, else in the order of the table. */
export function rowsOf(days: Day[], results: Result[], judged: JudgedRow[]): Row[] {
  const of = new Map(results.map((one) => [`${one.take_id} ${one.criterion}`, one]));
  const rows = judged.map(({ criterion, title, unit }) => ({
    criterion: criterion as string,
    title,
    unit,
    cells: days.map(({ take }) => of.get(`${take.id} ${criterion}`) ?? null),
  }));
  const weight = ({ cells }: Row) => Math.min(...cells.map((cell) => WEIGHT[saidOf(cell)]));
  return rows.filter(({ cells }) => cells.some(Boolean)).toSorted((a, b) => weight(a) - weight(b));
}

/** The state of a cell with the teacher's own word in it. */
export const stateOf = (cell: Result): State => saidOf(cell);

const ASIDE_S = 0.2;

/** The breath in the middle of a reading, from its first turn to its last; null where none was read whole. */
export function typicalOf({ breaths }: Report): { from: number; full: number; leave: number; to: number } | null {
  const whole = breaths.flatMap((b: Breath) =>
    b.inhale_start_s == null || b.inhale_end_s == null || b.exhale_start_s == null || b.exhale_end_s == null
      ? []
      : [{ from: b.inhale_start_s, full: b.inhale_end_s, leave: b.exhale_start_s, to: b.exhale_end_s }],
  );
  return whole[Math.floor(whole.length / 2)] ?? null;
}

/** What a lane does in a typical breath, over its rest; empty where it was not seen. t: share of the breath. */
export function strandOf(report: Report, lane: Lane): { t: number; pct: number }[] {
  const breath = typicalOf(report);
  const values = report.trace[lane];
  if (!breath || !values.length) return [];
  const rest = restOf(values);
  return report.trace.t_s.flatMap((at, i) =>
    at < breath.from - ASIDE_S || at > breath.to + ASIDE_S
      ? []
      : [{ t: (at - breath.from) / (breath.to - breath.from), pct: (values[i] ?? rest) - rest }],
  );
}

const LEAST_PCT = 2;

/** The largest movement among some readings, percent of trunk: one scale for all. */
export const mostOf = (reports: Report[]) =>
  Math.max(LEAST_PCT, ...reports.flatMap((report) => LANES.flatMap((lane) => strandOf(report, lane).map(({ pct }) => pct))));
