import styled from "styled-components";

import { useKeeping } from "../api/queries";
import { Said } from "../design/Fields";
import { colour } from "../design/tokens";
import { backupWords } from "./keeping";
import { Part } from "./Part";

const Alarm = styled.span`
  color: ${colour("ink")};
  font-weight: 650;
`;

/** Where backups are, of when, and what they still hold that was deleted here. They are made at the computer itself. */
export function Backups() {
  const backups = useKeeping().data?.backups;
  if (!backups) return null;
  return (
    <Part aria-labelledby="backup">
      <h2 id="backup">Backup</h2>
      {backups.map((one) => {
        const { says, alarm } = backupWords(one);
        return (
          <Said key={one.path} role={alarm ? "alert" : undefined}>
            {one.path}
            <br />
            {alarm ? <Alarm>{says}</Alarm> : says}
          </Said>
        );
      })}
      {backups.length === 0 && (
        <p>
          None is made yet. At the computer that runs Brevin, with a folder on another disk: <code>./brevin backup FOLDER</code>. From then
          on it is made anew every day, and what is deleted or withdrawn here goes there as well.
        </p>
      )}
    </Part>
  );
}
