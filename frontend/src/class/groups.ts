import type { Group, Member } from "../api/client";

/** Groups there is anything to choose by: not one that everybody who is here is in. */
export const choices = (groups: Group[], members: Member[]): Group[] =>
  groups.filter(({ student_ids }) => {
    const here = members.filter(({ student }) => student_ids.includes(student.id)).length;
    return here > 0 && here < members.length;
  });

/** Who of the class is in a group; everybody where none is shown. */
export const inGroup = (members: Member[], group: Group | null): Member[] =>
  group ? members.filter(({ student }) => group.student_ids.includes(student.id)) : members;

/** The group after the one that is shown; everybody comes after the last. */
export const nextGroup = (groups: Group[], shown: number | null): number | null => {
  const ids = groups.map(({ id }) => id);
  return ids[shown === null ? 0 : ids.indexOf(shown) + 1] ?? null;
};
