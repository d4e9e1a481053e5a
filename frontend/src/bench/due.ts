import type { CareTask } from "../api/client";

type Row = CareTask["rows"][number];

/** Where a chair stands with a task, in two or three words. */
export function dueWords(row: Row, every: number, toBeShown = false): string {
  if (!row.applies) return toBeShown ? "not shown yet" : "not this one";
  if (row.today) return "";
  if (row.days_left === null && !row.due) return "not on record";
  if (row.days_left === null || every === 0) return "due";
  if (row.days_left === 0) return "due today";
  const days = Math.abs(row.days_left);
  return row.days_left < 0 ? `${days} ${days === 1 ? "day" : "days"} over` : `in ${days} ${days === 1 ? "day" : "days"}`;
}

/** How often, in words. */
export function everyWords(every: number): string {
  if (every === 0) return "each time";
  if (every === 1) return "every day";
  return every === 365 ? "once a year" : `every ${every} days`;
}

/** The tasks with what is due in front: each time first, then the shortest interval; what others do comes last. */
export const inOrder = (tasks: CareTask[]) =>
  [...tasks].sort((a, b) => Number(a.who !== "student") - Number(b.who !== "student") || a.every_days - b.every_days);

/** The task whose sentence is said: the first that is due and needs more than a hand's turn, else the first that is due. */
export function saidFirst(tasks: CareTask[]): CareTask | undefined {
  const due = inOrder(tasks).filter((task) => task.rows.some((row) => row.applies && row.due && !row.today));
  return due.find((task) => task.drops || task.rice) ?? due[0] ?? tasks[0];
}

/** A key for each task: the first letter of what is done that nobody has yet. */
export function lettersOf(tasks: CareTask[], taken: string): string[] {
  const used = new Set(taken);
  return tasks.map((task) => {
    const letter = [...`${task.does}${task.title}`.toLowerCase()].find((one) => /[a-z]/.test(one) && !used.has(one)) ?? "";
    used.add(letter);
    return letter;
  });
}

/** The button's words: who is logged, and who is left out. */
export function logWords(task: CareTask, out: string[]): string {
  if (!out.length) return `${task.does}, all`;
  return out.length <= 2 ? `${task.does}, all but ${out.join(" and ")}` : `${task.does}, all but ${out.length}`;
}
