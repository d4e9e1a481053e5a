import type { Member } from "../api/client";

/** What a family says of one purpose; open: no answer yet. */
export type Word = "yes" | "no" | "open";
export type Purpose = Member["consents"][number]["purpose"];
export const PURPOSES: readonly { purpose: Purpose; words: string; asks: string }[] = [
  { purpose: "filming", words: "to film", asks: "may be filmed in the lesson while breathing and playing" },
  {
    purpose: "keeping",
    words: "to keep the clip",
    asks: "the clip may be kept until the day below; else it is deleted as soon as it was read",
  },
  {
    purpose: "showing",
    words: "to show it in class",
    asks: "the clip may be shown in the class, with the face blurred unless we agree otherwise",
  },
  { purpose: "lying", words: "to lie down for drills", asks: "may do breathing drills lying on a mat, filmed from the side" },
];
const DAY_MS = 86_400_000;
const SOON_DAYS = 30;
const AROUND_DAYS = { before: 60, after: 300 }; // of the rule

/** One purpose of one row: from, to, today as shares of the rule. */
export type ConsentCell = { words: string; from: number; to: number; today: number; soon: boolean; holds: boolean; refused?: boolean };
export type ConsentRow = { who: string; ids: number[]; cells: ConsentCell[]; ask: boolean };

const shortDay = (day: string) => new Date(`${day}T12:00`).toLocaleDateString("en-GB", { day: "numeric", month: "short" });

function cellOf(member: Member, purpose: Purpose, now: Date): ConsentCell {
  const today = AROUND_DAYS.before / (AROUND_DAYS.before + AROUND_DAYS.after);
  const share = (day: string) =>
    Math.min(
      Math.max(today + (new Date(`${day}T12:00`).getTime() - now.getTime()) / DAY_MS / (AROUND_DAYS.before + AROUND_DAYS.after), 0),
      1,
    );
  const word = member.consents.find((one) => one.purpose === purpose);
  if (!word) return { words: "no letter yet", from: 0, to: 0, today, soon: false, holds: false };
  if (word.withdrawn_on === word.from_day && word.until_day === word.from_day)
    return { words: `said no ${shortDay(word.from_day)}`, from: 0, to: 0, today, soon: false, holds: false, refused: true };
  if (word.withdrawn_on)
    return {
      words: `taken back ${shortDay(word.withdrawn_on)}`,
      from: share(word.from_day),
      to: share(word.withdrawn_on),
      today,
      soon: true,
      holds: false,
    };
  const left = (new Date(`${word.until_day}T23:59`).getTime() - now.getTime()) / DAY_MS;
  const line = { from: share(word.from_day), to: share(word.until_day), today };
  if (left < 0) return { words: `ended ${shortDay(word.until_day)}`, ...line, soon: true, holds: false };
  const days = left < SOON_DAYS ? `, ${Math.ceil(left)} days` : "";
  return { words: `until ${shortDay(word.until_day)}${days}`, ...line, soon: left < SOON_DAYS, holds: true };
}

/** Everyone alike is one row, the exceptions by name; the largest row first. ask: a letter has to go out, for filming or keeping. */
export function consentRows(members: Member[], now: Date): ConsentRow[] {
  const alike = new Map<string, { members: Member[]; cells: ConsentCell[] }>();
  for (const member of members) {
    const cells = PURPOSES.map(({ purpose }) => cellOf(member, purpose, now));
    const key = cells.map(({ words }) => words).join("|");
    const known = alike.get(key);
    if (known) known.members.push(member);
    else alike.set(key, { members: [member], cells });
  }
  return [...alike.values()]
    .sort((a, b) => b.members.length - a.members.length)
    .map((row, i) => ({
      who: whoWords(row.members, i === 0),
      ids: row.members.map(({ student }) => student.id),
      cells: row.cells,
      ask: row.cells.slice(0, 2).some((cell) => !cell.refused && (!cell.holds || cell.soon)),
    }));
}

const MOST_NAMES = 3;

function whoWords(members: Member[], largest: boolean): string {
  if (members.length > MOST_NAMES || (largest && members.length > 1)) return `${members.length} students`;
  return members.map(({ student }) => student.name).join(", ");
}
