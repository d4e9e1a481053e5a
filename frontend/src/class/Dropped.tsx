import { useState } from "react";
import { Checkbox } from "react-aria-components";
import styled from "styled-components";

import type { ClassChanges, ClassList, ListRow } from "../api/client";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { colour } from "../design/tokens";
import { INSTRUMENTS, instrumentWords } from "../shared/words";

const Box = styled.section`
  h2 {
    font-size: 25px;
    font-weight: 800;
  }
  > p {
    color: ${colour("soft")};
  }
`;
const Group = styled.div`
  border-top: 1.5px solid ${colour("hair")};
  margin-top: 12px;
  padding-top: 8px;
  h3 {
    font-size: 16px;
    font-weight: 650;
    display: flex;
    justify-content: space-between;
    gap: 12px;
  }
  h3 small {
    font-weight: 400;
    color: ${colour("soft")};
  }
`;
const Line = styled(Checkbox)`
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) minmax(0, 0.9fr) 56px;
  gap: 8px;
  align-items: center;
  min-height: 30px;
  cursor: pointer;
  i {
    width: 17px;
    height: 17px;
    border: 1.5px solid ${colour("ink")};
    border-radius: 3px;
  }
  &[data-selected] i {
    background: ${colour("ink")};
  }
  &[data-focus-visible] {
    outline: 3px solid ${colour("ink")};
  }
  span {
    color: ${colour("soft")};
  }
  span:last-child {
    text-align: right;
    font-size: 14px;
  }
`;
const Mend = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  min-height: 44px;
  b {
    font-weight: 650;
    margin-right: auto;
  }
  select {
    font: inherit;
    color: inherit;
    background: ${colour("sheet")};
    border: 1.5px dashed ${colour("ink")};
    border-radius: 6px;
    min-height: 36px;
  }
`;
const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  margin-top: 16px;
`;

type Props = { file: string; list: ClassList; busy: boolean; onMake: (changes: ClassChanges) => void; onNone: () => void };

/** What a dropped class list would change, before anything changes: each line can be left out, a row that cannot be read is mended here. */
export function Dropped({ file, list, busy, onMake, onNone }: Props) {
  const [out, setOut] = useState<Set<string>>(new Set());
  const [mended, setMended] = useState<Record<number, string>>({});
  const kept = (key: string) => !out.has(key);
  const turn = (key: string) => setOut(new Set(out.has(key) ? [...out].filter((one) => one !== key) : [...out, key]));
  const mendedRows = list.unreadable.filter((row) => row.name && mended[row.number]);
  const changes = {
    add: [
      ...list.new.filter((row) => kept(`new ${row.number}`)),
      ...mendedRows.map((row) => ({ ...row, instrument: mended[row.number] })),
    ].map(({ name, instrument, note, sits }) => ({ name, instrument, note, sits })),
    instruments: list.changed.filter((row) => kept(`changed ${row.number}`)).map(({ id, instrument }) => ({ id, instrument })),
    sits: [
      ...list.changed.filter((row) => row.sits && kept(`changed ${row.number}`)),
      ...list.elsewhere.filter((row) => kept(`elsewhere ${row.number}`)),
    ].map(({ id, sits }) => ({ id, sits })),
    leave: list.left.filter(({ id }) => kept(`left ${id}`)).map(({ id }) => id),
  } as ClassChanges;
  const seated = list.elsewhere.filter((row) => kept(`elsewhere ${row.number}`)).length;
  const count = (changes.add?.length ?? 0) + (changes.instruments?.length ?? 0) + seated + (changes.leave?.length ?? 0);
  const make = () => count > 0 && !busy && onMake(changes);
  useKeys("Class list", [
    { key: "Enter", does: "make the changes", run: make, off: !count },
    { key: "Escape", shown: "Esc", does: "change nothing", run: onNone },
  ]);
  const line = (key: string, name: string, what: string, where: string) => (
    <Line key={key} isSelected={kept(key)} onChange={() => turn(key)}>
      <i aria-hidden />
      {name}
      <span>{what}</span>
      <span>{where}</span>
    </Line>
  );
  return (
    <Box aria-label="Class list" data-testid="dropped">
      <h2>Nothing has changed yet</h2>
      <p>
        {file}: {list.same} stay as they are
      </p>
      {list.new.length > 0 && (
        <Group>
          <h3>
            {list.new.length} new <small>not filmed before a letter is back</small>
          </h3>
          {list.new.map((row) => line(`new ${row.number}`, row.name, instrumentWords(row.instrument ?? ""), `row ${row.number}`))}
        </Group>
      )}
      {list.changed.length > 0 && (
        <Group>
          <h3>
            {list.changed.length} {list.changed.length === 1 ? "changes" : "change"} instrument <small>takes so far keep the old one</small>
          </h3>
          {list.changed.map((row) => line(`changed ${row.number}`, row.name, changeWords(row), `row ${row.number}`))}
        </Group>
      )}
      {list.elsewhere.length > 0 && (
        <Group>
          <h3>
            {list.elsewhere.length} {list.elsewhere.length === 1 ? "sits" : "sit"} elsewhere{" "}
            <small>row from your stand, chair from your left</small>
          </h3>
          {list.elsewhere.map((row) => line(`elsewhere ${row.number}`, row.name, sitsWords(row), `row ${row.number}`))}
        </Group>
      )}
      {list.left.length > 0 && (
        <Group>
          <h3>
            {list.left.length} left <small>takes stay until they are deleted</small>
          </h3>
          {list.left.map(({ id, name, instrument }) => line(`left ${id}`, name, instrumentWords(instrument), "not in it"))}
        </Group>
      )}
      {list.unreadable.length > 0 && (
        <Group>
          <h3>
            {list.unreadable.length} {list.unreadable.length === 1 ? "row" : "rows"} cannot be read
          </h3>
          {list.unreadable.map((row) => (
            <Mend key={row.number}>
              <b>
                {row.name || "no name"} {row.said && `"${row.said}"`}
              </b>
              {row.name && (
                <select
                  aria-label={`instrument of ${row.name}`}
                  value={mended[row.number] ?? ""}
                  onChange={(event) => setMended({ ...mended, [row.number]: event.target.value })}
                >
                  <option value="">left out</option>
                  {Object.entries(INSTRUMENTS).map(([key, words]) => (
                    <option key={key} value={key}>
                      {words}
                    </option>
                  ))}
                </select>
              )}
              <span>row {row.number}</span>
            </Mend>
          ))}
        </Group>
      )}
      {list.unseated.length > 0 && (
        <Group>
          <h3>
            {list.unseated.length} without a chair that can be read <small>they sit with their section</small>
          </h3>
          {list.unseated.map((row) => (
            <Mend key={row.number}>
              <b>
                {row.name} &quot;{row.said}&quot;
              </b>
              <span>row {row.number}</span>
            </Mend>
          ))}
        </Group>
      )}
      {list.twice.length > 0 && (
        <Group>
          <h3>
            {list.twice.length} twice <small>only the first row counts: {list.twice.map((row) => `row ${row.number}`).join(", ")}</small>
          </h3>
        </Group>
      )}
      <Buttons>
        <Action main large letter="Enter" isDisabled={!count || busy} onPress={make}>
          {count === 1 ? "Make 1 change" : `Make ${count} changes`}
        </Action>
        <Action large letter="Esc" onPress={onNone}>
          Change none
        </Action>
      </Buttons>
    </Box>
  );
}

const sitsWords = ({ sits }: ListRow) => (sits ? `row ${sits.row}, chair ${sits.chair}` : "");
const changeWords = ({ was, instrument }: ListRow) => `${instrumentWords(was ?? "")} → ${instrumentWords(instrument ?? "")}`;
