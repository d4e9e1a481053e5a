import type { ClassChanges, Member } from "../api/client";

/** What takes a change back. added: who came by it; rows: how everybody sat before, put back only where the change moved somebody: else chairs that others moved
since stay where they are. */
export function undoOf(changes: ClassChanges, added: number[], before: Member[], rows: number[][]): ClassChanges {
  const was = new Map(before.map(({ student }) => [student.id, student]));
  const played = (id: number) => was.get(id)?.instrument;
  const moved =
    changes.sits?.length || changes.instruments?.length || changes.edit?.some(({ id, instrument }) => instrument !== played(id));
  const known = (changed: { id: number }[] = []) => changed.flatMap(({ id }) => was.get(id) ?? []);
  return {
    drop: added,
    instruments: known(changes.instruments).map(({ id, instrument }) => ({ id, instrument })),
    edit: known(changes.edit).map(({ id, name, instrument, note }) => ({ id, name, instrument, note })),
    back: changes.leave ?? [],
    rows: moved ? rows : [],
  };
}
