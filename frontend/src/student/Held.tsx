import { useState } from "react";
import styled from "styled-components";

import type { Take } from "../api/client";
import { useErase, useMe } from "../api/queries";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { Question } from "../design/Question";
import { colour } from "../design/tokens";
import { firstName } from "../shared/words";

const Line = styled.footer`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-top: 22px;
  padding-top: 12px;
  border-top: 1px solid ${colour("hair")};
  p {
    color: ${colour("soft")};
  }
`;

/** What the family may ask for: all that is held about their child, or that none of it is. */
export function Held({ student, onGone }: { student: Take["student"]; onGone: () => void }) {
  const may = useMe().data?.may.includes("delete") ?? false;
  const [asking, setAsking] = useState(false);
  const erase = useErase(student.id, onGone);
  const name = firstName(student.name);
  const take = () => window.location.assign(`/api/students/${student.id}/held`);
  useKeys("The record, seldom", [
    { key: "z", does: "everything that is held, as one file", run: take, off: !may },
    { key: "x", does: "delete the student with everything", run: () => setAsking(true), off: !may },
  ]);
  if (!may) return null;
  return (
    <Line>
      <Action letter="Z" onPress={take}>
        Everything about {name}, one ZIP
      </Action>
      <Action letter="X" onPress={() => setAsking(true)}>
        Delete {name} with everything
      </Action>
      <p>for the family: tables, readings, clips</p>
      <Question
        isOpen={asking}
        onClose={() => setAsking(false)}
        title={`Delete everything about ${student.name}?`}
        text="The chair, every take, clip and reading, consent, ticks and the care log are deleted from this computer now. This cannot be taken back. Backups follow, each within a minute or when its disk is there; other copies of the data folder still hold them."
        does="Delete everything"
        keeps="Keep it"
        onDo={() => erase.mutate()}
        trouble={erase.error?.message}
      />
    </Line>
  );
}
