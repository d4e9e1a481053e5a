import { useState, type FormEvent } from "react";
import { Dialog, Form, Heading, Menu, MenuItem, MenuTrigger, Popover, Text } from "react-aria-components";
import styled from "styled-components";

import type { Me } from "../api/client";
import { useGoTo, useNewProgramme } from "../api/programmes";
import { Action } from "../design/Action";
import { Said, TextLine } from "../design/Fields";
import { Shade, Sheet } from "../design/Sheet";
import { Quiet } from "../design/Shell";
import { PHONE } from "../design/sizes";
import { colour } from "../design/tokens";
import { ownZone } from "../shared/zones";

const Plain = styled.span`
  @media (max-width: 1100px) {
    display: none;
  }
`;
const Opener = styled(Quiet)`
  max-width: 260px;
  overflow: hidden;
  text-overflow: ellipsis;
  @media ${PHONE} {
    max-width: none;
  }
`;
const List = styled(Popover)`
  background: ${colour("sheet")};
  color: ${colour("ink")};
  border: 1px solid ${colour("ink")};
  border-radius: 6px;
  min-width: 240px;
  max-width: 92vw;
  p {
    padding: 10px 16px;
    color: ${colour("soft")};
    max-width: 34ch;
  }
`;
const Item = styled(MenuItem)`
  display: grid;
  padding: 10px 16px;
  cursor: pointer;
  outline-offset: -3px;
  overflow-wrap: anywhere;
  &[aria-checked="true"] {
    font-weight: 650;
  }
  &[data-focused] {
    background: ${colour("hair")};
  }
  &[data-disabled] {
    color: ${colour("soft")};
    cursor: default;
  }
  span + span {
    color: ${colour("soft")};
    font-weight: 400;
    font-size: 15px;
  }
`;
const Asked = styled(Sheet)`
  width: min(460px, 92vw);
  form {
    display: grid;
    gap: 14px;
    margin-top: 10px;
  }
  form > div:last-child {
    display: flex;
    gap: 12px;
  }
`;
const MORE = "more";

type Props = { me: Me; busy: boolean };

/** Which programme is looked at. Who has several goes from one to another here; who runs this one may make one more. */
export function Programmes({ me, busy }: Props) {
  const goTo = useGoTo();
  const [making, setMaking] = useState(false);
  const [open, setOpen] = useState(false);
  const more = me.may.includes("people");
  const here = me.programme;
  if (!here || (me.programmes.length < 2 && !more)) return <Plain>{here?.name}</Plain>;
  const chosen = (key: string) => {
    if (key === MORE) setMaking(true);
    else if (key !== String(here.id)) goTo.mutate(Number(key), { onError: () => setOpen(true) }); // the list had closed: it says why, and asks again
  };
  return (
    <>
      <MenuTrigger isOpen={open} onOpenChange={setOpen}>
        <Opener aria-label={`Programme: ${here.name}`}>{here.name}</Opener>
        <List placement="bottom end">
          <Menu
            aria-label="Programmes"
            selectionMode="single"
            selectedKeys={[String(here.id)]}
            disabledKeys={busy ? [MORE, ...me.programmes.filter((one) => one.id !== here.id).map((one) => String(one.id))] : []}
            onAction={(key) => chosen(String(key))}
          >
            {me.programmes.map((one) => (
              <Item key={one.id} id={String(one.id)} textValue={one.name}>
                <Text slot="label">{one.name}</Text>
                {one.id === here.id && <Text slot="description">you are here</Text>}
              </Item>
            ))}
            {more && (
              <Item id={MORE} textValue="One more programme">
                <Text slot="label">One more programme …</Text>
              </Item>
            )}
          </Menu>
          {busy && <p>A clip is still being sent. When it has arrived you can go to another programme.</p>}
          {goTo.error && <p role="alert">{goTo.error.message}</p>}
        </List>
      </MenuTrigger>
      <NewProgramme isOpen={making} onClose={() => setMaking(false)} />
    </>
  );
}

function NewProgramme({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const make = useNewProgramme();
  const [name, setName] = useState("");
  const send = (event: FormEvent) => {
    event.preventDefault();
    make.mutate({ name, time_zone: ownZone() });
  };
  return (
    <Shade isOpen={isOpen} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Asked>
        <Dialog>
          <Heading slot="title">One more programme</Heading>
          <Form onSubmit={send}>
            <TextLine
              label="What it is called"
              value={name}
              onChange={setName}
              isRequired
              autoFocus
              maxLength={120}
              hint="Another school or band: with a class, cards, rules and people of its own. Nothing of this one is seen there."
            />
            {make.error && <Said role="alert">{make.error.message}</Said>}
            <div>
              <Action main type="submit" isDisabled={make.isPending || !name.trim()}>
                Make it and go there
              </Action>
              <Action onPress={onClose}>Not now</Action>
            </div>
          </Form>
        </Dialog>
      </Asked>
    </Shade>
  );
}
