import { useState, type FormEvent } from "react";
import { Button, Form } from "react-aria-components";
import styled from "styled-components";

import type { Group } from "../api/client";
import { Action } from "../design/Action";
import { ChoiceLine, Said, TextLine } from "../design/Fields";
import { colour } from "../design/tokens";

const Line = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-bottom: 12px;
`;
const Name = styled(Button)`
  min-height: 44px;
  padding: 0 2px;
  border: 0;
  border-bottom: 3px solid transparent;
  background: none;
  font: inherit;
  font-weight: 650;
  color: ${colour("soft")};
  cursor: pointer;
  &[aria-pressed="true"] {
    color: ${colour("ink")};
    border-bottom-color: ${colour("ink")};
  }
`;
const Fields = styled(Form)`
  display: grid;
  gap: 12px;
`;
type Shown = { groups: Group[]; shown: number | null; onShow: (id: number | null) => void };

/** Which band is meant: everybody, or one of the groups. */
export function Groups({ groups, shown, onShow }: Shown) {
  if (!groups.length) return null;
  return (
    <Line aria-label="Groups">
      <Name aria-pressed={shown === null} onPress={() => onShow(null)}>
        Everybody
      </Name>
      {groups.map(({ id, name }) => (
        <Name key={id} aria-pressed={shown === id} onPress={() => onShow(id)}>
          {name}
        </Name>
      ))}
    </Line>
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
