import { useState, type FormEvent } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";

import type { ClassChanges, Group, Member } from "../api/client";
import { useGiveConsents, useWithdraw } from "../api/queries";
import { Action } from "../design/Action";
import { ChoiceLine, Said, TextLine } from "../design/Fields";
import { colour } from "../design/tokens";
import { firstName, INSTRUMENTS } from "../shared/words";
import { PURPOSES, type Purpose, type Word } from "./consent";

const Fields = styled(Form)`
  display: grid;
  gap: 12px;
  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    display: flex;
    gap: 4px 18px;
  }
  legend {
    font-weight: 650;
    padding-bottom: 2px;
  }
  fieldset label {
    display: flex;
    align-items: center;
    gap: 10px;
    min-height: 32px;
  }
  input[type="radio"] {
    width: 20px;
    height: 20px;
    accent-color: ${colour("ink")};
  }
`;
/** Whose letters are back, and until when they may be filmed. */
export function Letters({ members, onDone }: { members: Member[]; onDone: () => void }) {
  const give = useGiveConsents();
  const [by, setBy] = useState("guardian, by letter");
  const [until, setUntil] = useState(() => endOfYear(new Date()));
  const [said, setSaid] = useState<Record<Purpose, Word>>({ filming: "yes", keeping: "yes", showing: "open", lying: "open" });
  const all = (word: Word) => PURPOSES.map((one) => one.purpose).filter((purpose) => said[purpose] === word);
  const [yes, no] = [all("yes"), all("no")];
  const send = (event: FormEvent) => {
    event.preventDefault();
    give.mutate({ ids: members.map((one) => one.student.id), by, until, purposes: yes, refused: no }, { onSuccess: onDone });
  };
  return (
    <Fields onSubmit={send}>
      <h2>{members.length === 1 ? `${members[0]!.student.name}'s letter is back` : `${members.length} letters are back`}</h2>
      <p>As each family answered. School policy and local law come first; a no, or a withdrawal, counts at once.</p>
      <TextLine label="Given by" value={by} onChange={setBy} isRequired autoFocus />
      {PURPOSES.map(({ purpose, words }) => (
        <Answer key={purpose} words={words} word={said[purpose]} onSay={(word) => setSaid({ ...said, [purpose]: word })} />
      ))}
      {(no.includes("filming") || no.includes("keeping")) && <p>A no to filming or keeping deletes every clip that there is, at once.</p>}
      <TextLine label="Their yes lasts until" type="date" value={until} onChange={setUntil} isRequired />
      {give.error && <Said role="alert">{give.error.message}</Said>}
      <Action main large type="submit" isDisabled={give.isPending || yes.length + no.length === 0}>
        Put it on record
      </Action>
      <Action large onPress={onDone}>
        Not now
      </Action>
    </Fields>
  );
}

const SAID: Record<Word, string> = { yes: "yes", no: "no", open: "no answer" };

/** What a family said to one purpose. */
function Answer({ words, word, onSay }: { words: string; word: Word; onSay: (word: Word) => void }) {
  return (
    <fieldset>
      <legend>{words}</legend>
      {(Object.keys(SAID) as Word[]).map((one) => (
        <label key={one}>
          <input type="radio" name={words} checked={word === one} onChange={() => onSay(one)} /> {SAID[one]}
        </label>
      ))}
    </fieldset>
  );
}

const SCHOOL_ENDS = 6; // July: months count from nought

/** The last day of the school year that is running. */
function endOfYear(now: Date): string {
  const year = now.getMonth() > SCHOOL_ENDS ? now.getFullYear() + 1 : now.getFullYear();
  return `${year}-07-23`;
}

type NewStudent = NonNullable<ClassChanges["add"]>[number];

/** One more student. */
export function AddStudent({ onAdd, onNone }: { onAdd: (one: NewStudent) => void; onNone: () => void }) {
  const [name, setName] = useState("");
  const [instrument, setInstrument] = useState("flute");
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim()) onAdd({ name: name.trim(), instrument: instrument as NewStudent["instrument"], note: "", sits: null });
  };
  return (
    <Fields onSubmit={send}>
      <h2>A new student</h2>
      <TextLine label="Name" value={name} onChange={setName} isRequired autoFocus />
      <WhichInstrument value={instrument} onChange={setInstrument} />
      <Action main large type="submit">
        Add
      </Action>
      <Action large onPress={onNone}>
        Not now
      </Action>
    </Fields>
  );
}

function WhichInstrument({ value, onChange }: { value: string; onChange: (instrument: string) => void }) {
  const options = Object.entries(INSTRUMENTS).map(([key, words]) => ({ value: key, words }));
  return <ChoiceLine label="Instrument" value={value} options={options} onChange={onChange} />;
}

type EditedStudent = NonNullable<ClassChanges["edit"]>[number];

/** What stands of a student: the name as it is written, the instrument, and a note that only the teacher sees. */
export function EditStudent({ member, onKeep, onNone }: { member: Member; onKeep: (one: EditedStudent) => void; onNone: () => void }) {
  const { student } = member;
  const [name, setName] = useState(student.name);
  const [instrument, setInstrument] = useState<string>(student.instrument);
  const [note, setNote] = useState(student.note);
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim())
      onKeep({ id: student.id, name: name.trim(), instrument: instrument as EditedStudent["instrument"], note: note.trim() });
  };
  return (
    <Fields onSubmit={send}>
      <h2>{student.name}</h2>
      <TextLine label="Name" value={name} onChange={setName} isRequired autoFocus maxLength={120} />
      <WhichInstrument value={instrument} onChange={setInstrument} />
      <TextLine label="A note for yourself" value={note} onChange={setNote} maxLength={255} />
      <p>Readings that are there stay with the instrument that they were filmed with.</p>
      <Action main large type="submit">
        Keep
      </Action>
      <Action large onPress={onNone}>
        Not now
      </Action>
    </Fields>
  );
}

/** A family takes its consent back: every clip goes at once, and what was deleted is said. */
export function Withdrawing({ member, onDone }: { member: Member; onDone: () => void }) {
  const withdraw = useWithdraw();
  const { name, id } = member.student;
  const [purpose, setPurpose] = useState<Purpose>("filming");
  const deletes = purpose === "filming" || purpose === "keeping";
  const clips = withdraw.data;
  if (clips !== undefined)
    return (
      <Fields onSubmit={(event: FormEvent) => event.preventDefault()}>
        <Said role="status">
          {purpose === "filming" ? `${firstName(name)} is not filmed any more.` : "It stands on record, and counts from now on."}{" "}
          {clips === 0 ? "There was no clip" : `${clips} ${clips === 1 ? "clip was" : "clips were"} deleted`}; the numbers that were read
          stay with the record.
        </Said>
        <Action large autoFocus onPress={onDone}>
          Good
        </Action>
      </Fields>
    );
  return (
    <Fields onSubmit={(event: FormEvent) => event.preventDefault()}>
      <h2>{name}&apos;s family takes its consent back</h2>
      <ChoiceLine
        label="What they take back"
        value={purpose}
        options={PURPOSES.map((one) => ({
          value: one.purpose,
          words: one.purpose === "filming" ? "to film, and all that hangs on it" : one.words,
        }))}
        onChange={(value) => setPurpose(value as Purpose)}
      />
      {deletes && <p>Every clip of {firstName(name)} and every copy of it is deleted from this computer now. This cannot be taken back.</p>}
      {withdraw.error && <Said role="alert">{withdraw.error.message}</Said>}
      <Action main large autoFocus onPress={onDone}>
        Keep it as it is
      </Action>
      <Action large isDisabled={withdraw.isPending} onPress={() => withdraw.mutate({ id, purpose })}>
        {deletes ? "Delete the clips" : "Put it on record"}
      </Action>
    </Fields>
  );
}

const NEW = "";
type Into = { groups: Group[]; who: string; trouble: string | undefined; onPut: (name: string) => void; onNone: () => void };

/** Puts who is chosen into a group that is there, or into a new one. */
export function IntoGroup({ groups, who, trouble, onPut, onNone }: Into) {
  const [known, setKnown] = useState(groups[0]?.name ?? NEW);
  const [name, setName] = useState("");
  const into = known === NEW ? name.trim() : known;
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (into) onPut(into);
  };
  const options = [...groups.map((one) => ({ value: one.name, words: one.name })), { value: NEW, words: "a new one" }];
  return (
    <Fields onSubmit={send}>
      <h2>Into a group</h2>
      <p>{who}. A group has lessons of its own; a student may be in several.</p>
      {groups.length > 0 && <ChoiceLine label="Group" value={known} options={options} onChange={setKnown} />}
      {known === NEW && <TextLine label="Name of the group" value={name} onChange={setName} isRequired autoFocus maxLength={120} />}
      {trouble && <Said role="alert">{trouble}</Said>}
      <Action main large type="submit">
        Put them in
      </Action>
      <Action large onPress={onNone}>
        Not now
      </Action>
    </Fields>
  );
}
