import { useState, type FormEvent } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";

import type { Me } from "../api/client";
import { useChangeProgramme } from "../api/programmes";
import { useMe } from "../api/queries";
import { Action } from "../design/Action";
import { ChoiceLine, Said, TextLine } from "../design/Fields";
import { zones } from "../shared/zones";

const Part = styled.section`
  margin-top: 34px;
  max-width: 460px;
`;

/** What the programme is called, and by which clock its days begin. */
export function ThisProgramme() {
  const me = useMe();
  return me.data?.programme ? <Named key={me.data.programme.id} now={me.data.programme} /> : null;
}

function Named({ now }: { now: NonNullable<Me["programme"]> }) {
  const change = useChangeProgramme();
  const [typed, setName] = useState<string | null>(null);
  const [chosen, setZone] = useState<string | null>(null);
  const [name, zone] = [typed ?? now.name, chosen ?? now.time_zone]; // what is not changed here follows what another screen keeps
  const same = name.trim() === now.name && zone === now.time_zone;
  const done = () => {
    setName(null);
    setZone(null);
  };
  const send = (event: FormEvent) => {
    event.preventDefault();
    change.mutate({ name, time_zone: zone }, { onSuccess: done });
  };
  return (
    <Part aria-label="This programme">
      <h2>This programme</h2>
      <Form onSubmit={send}>
        <TextLine label="What it is called" value={name} onChange={setName} isRequired maxLength={120} />
        <ChoiceLine
          label="Time zone: when a day of consent begins and ends"
          value={zone}
          options={zones(now.time_zone).map((one) => ({ value: one, words: one.replaceAll("_", " ") }))}
          onChange={setZone}
        />
        {change.error && <Said role="alert">{change.error.message}</Said>}
        <p>
          <Action type="submit" isDisabled={change.isPending || same || !name.trim()}>
            Keep it
          </Action>
        </p>
        {change.isSuccess && same && <Said role="status">Kept.</Said>}
      </Form>
    </Part>
  );
}
