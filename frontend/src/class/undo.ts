import type { ClassChanges, Member } from "../api/client";

/** What takes a change back. added: who came by it; rows: how everybody sat before. */
export function undoOf(changes: ClassChanges, added: number[], before: Member[], rows: number[][]): ClassChanges {
  const was = new Map(before.map(({ student }) => [student.id, student]));
  const known = (changed: { id: number }[] = []) => changed.flatMap(({ id }) => was.get(id) ?? []);
  return {
    drop: added,
    instruments: known(changes.instruments).map(({ id, instrument }) => ({ id, instrument })),
    edit: known(changes.edit).map(({ id, name, instrument, note }) => ({ id, name, instrument, note })),
    back: changes.leave ?? [],
    rows,
  };
}
