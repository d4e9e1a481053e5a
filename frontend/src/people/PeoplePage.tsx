import { useState, type FormEvent } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";

import { useInvite, usePeople } from "../api/queries";
import { Action } from "../design/Action";
import { ChoiceLine, Said, TextLine } from "../design/Fields";
import { Message } from "../design/Message";
import { useTitle } from "../design/title";
import { colour } from "../design/tokens";
import { Backups } from "./Backups";
import { Keeping } from "./Keeping";
import { ThisProgramme } from "./ThisProgramme";

const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(280px, 1fr);
  gap: 40px;
  padding-top: 16px;
  h1,
  h2 {
    font-size: 24px;
    font-weight: 800;
    margin-bottom: 10px;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) minmax(0, 2fr);
    gap: 12px;
    padding: 10px 0;
    border-bottom: 1px solid ${colour("hair")};
    span {
      color: ${colour("soft")};
    }
  }
  form {
    display: grid;
    gap: 14px;
  }
  output {
    overflow-wrap: anywhere;
    user-select: all;
    font-weight: 650;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const ROLES = {
  assistant: "assistant: films, reads, ticks",
  teacher: "teacher: all of that, class, consent, rules, deletes",
  owner: "owner: all of that, and people",
} as const;
type Role = keyof typeof ROLES;

/** Who belongs to the programme, a one-time link for somebody new, how long clips are kept, and where backups are. */
export function PeoplePage() {
  const people = usePeople();
  const invite = useInvite();
  const [name, setName] = useState("");
  const [role, setRole] = useState<Role>("assistant");
  useTitle("People");
  if (people.isPending) return null;
  if (!people.data) return <Message title="The people did not load" text={people.error.message} onRetry={() => people.refetch()} />;
  const send = (event: FormEvent) => {
    event.preventDefault();
    invite.mutate({ name, role });
  };
  return (
    <Page>
      <section>
        <h1>People</h1>
        <ul>
          {people.data.map((one) => (
            <li key={one.login}>
              <b>{one.name}</b>
              <span>{one.login}</span>
              <span>{ROLES[one.role as Role]}</span>
            </li>
          ))}
        </ul>
        <ThisProgramme />
        <Keeping />
        <Backups />
      </section>
      <section aria-label="Invite">
        <h2>Invite somebody</h2>
        <Form onSubmit={send}>
          <TextLine label="Name" value={name} onChange={setName} isRequired />
          <ChoiceLine
            label="May"
            value={role}
            options={Object.entries(ROLES).map(([value, words]) => ({ value, words }))}
            onChange={(value) => setRole(value as Role)}
          />
          {invite.error && <Said role="alert">{invite.error.message}</Said>}
          <Action main large type="submit" isDisabled={invite.isPending || !name.trim()}>
            Make a link
          </Action>
          {invite.data && (
            <Said role="status">
              Give this to {name}: it opens once, within seven days, and is shown only now.
              <br />
              <output>{invite.data.link}</output>
            </Said>
          )}
        </Form>
      </section>
    </Page>
  );
}
