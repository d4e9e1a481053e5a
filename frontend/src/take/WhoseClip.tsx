import { useState } from "react";
import { Dialog, Heading, ListBox, ListBoxItem } from "react-aria-components";
import styled from "styled-components";

import type { Take } from "../api/client";
import { useMove, useStudents } from "../api/queries";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { Shade, Sheet } from "../design/Sheet";
import { colour } from "../design/tokens";
import { firstName, instrumentWords } from "../shared/words";

const Names = styled(ListBox)`
  columns: 2 180px;
  margin: 12px 0 18px;
  outline: none;
`;
const Name = styled(ListBoxItem)`
  padding: 9px 8px;
  cursor: pointer;
  break-inside: avoid;
  border-bottom: 1px solid ${colour("hair")};
  span {
    color: ${colour("soft")};
  }
  &[data-focused] {
    background: ${colour("wash")};
    outline: 3px solid ${colour("ink")};
    outline-offset: -3px;
  }
  &[data-disabled] {
    color: ${colour("soft")};
    cursor: default;
  }
`;

/** This was someone else's clip: it goes to them with all that hangs on it, and can come back the same way. */
export function WhoseClip({ take }: { take: Take }) {
  const [open, setOpen] = useState(false);
  const students = useStudents(open);
  const move = useMove(take.id);
  useKeys("Take, whose", [{ key: "w", does: "this was someone else's clip", run: () => setOpen(true) }]);
  const others = students.data?.filter((one) => one.id !== take.student.id) ?? [];
  const give = (id: number) => move.mutate(id, { onSuccess: () => setOpen(false) });
  const trouble = move.error ?? students.error;
  return (
    <>
      <Action letter="W" onPress={() => setOpen(true)}>
        Not {firstName(take.student.name)}?
      </Action>
      <Shade isOpen={open} onOpenChange={setOpen} isDismissable>
        <Sheet>
          <Dialog>
            <Heading slot="title">Whose clip is this?</Heading>
            <p>It goes to them with its reading and is judged by what their own chair asks.</p>
            {trouble && <p role="alert">{trouble.message}</p>}
            <Names
              aria-label="Students"
              autoFocus="first"
              disabledKeys={others.filter((one) => one.may_film_until === null).map((one) => one.id)}
              onAction={(key) => give(Number(key))}
            >
              {others.map((one) => (
                <Name key={one.id} id={one.id} textValue={one.name}>
                  {one.name}{" "}
                  <span>
                    {instrumentWords(one.instrument)}
                    {one.may_film_until === null && ", not to be filmed"}
                  </span>
                </Name>
              ))}
            </Names>
            <Action onPress={() => setOpen(false)}>It is {firstName(take.student.name)}&apos;s</Action>
          </Dialog>
        </Sheet>
      </Shade>
    </>
  );
}
