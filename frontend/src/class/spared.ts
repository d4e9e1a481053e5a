import type { ExemptionChange, JudgedRow } from "../api/client";
import { momentWords } from "../shared/words";

const PARTS: JudgedRow["area"][] = ["posture", "hold", "breath"];

/** The rows a student is exempt from, in the order of the table. */
export const leftOut = (rows: JudgedRow[], exempt: string[]): JudgedRow[] => rows.filter(({ criterion }) => exempt.includes(criterion));

/** What else may be left out, part by part; the first is the question. */
export function toLeaveOut(rows: JudgedRow[], exempt: string[]): { value: string; words: string }[] {
  const others = rows.filter(({ criterion }) => !exempt.includes(criterion));
  const sorted = others.toSorted((a, b) => PARTS.indexOf(a.area) - PARTS.indexOf(b.area));
  const options = sorted.map(({ criterion, title, area }) => ({ value: criterion as string, words: `${area}: ${title}` }));
  return [{ value: "", words: "choose what" }, ...options];
}

/** One change in words: who, when, what. */
export function changeWords({ criterion, out_now, by, made_at }: ExemptionChange, rows: JudgedRow[]): string {
  const title = rows.find((row) => row.criterion === criterion)?.title ?? criterion;
  return `${momentWords(made_at)}, ${by || "somebody who has left"}: ${title} ${out_now ? "left out" : "measured again"}`;
}
