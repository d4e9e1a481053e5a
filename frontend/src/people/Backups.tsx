import type { Backup } from "../api/client";
import { Said } from "../design/Fields";
import { backupWords } from "./keeping";

/** Where backups are, of when, and what they still hold that was deleted here. They are made at the computer itself. */
export function Backups({ backups }: { backups: Backup[] }) {
  return (
    <>
      <h2>Backup</h2>
      {backups.map((one) => {
        const { says, alarm } = backupWords(one);
        return (
          <Said key={one.path} role={alarm ? "alert" : "status"}>
            <b>{one.path}</b>
            <br />
            {says}
          </Said>
        );
      })}
      {backups.length === 0 && (
        <p>
          None is made yet. At the computer that runs Brevin, with a folder on another disk: <code>./brevin backup FOLDER</code>. From then
          on it is made anew every day, and what is deleted or withdrawn here goes there as well.
        </p>
      )}
    </>
  );
}
