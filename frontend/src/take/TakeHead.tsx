import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";

import type { Take } from "../api/client";
import { useDelete, useMe, useReadAgain } from "../api/queries";
import { checkWords } from "../breathscore/layout";
import { Action } from "../design/Action";
import { useKeys, type Binding } from "../design/keys";
import { Question } from "../design/Question";
import { colour } from "../design/tokens";
import { firstName, instrumentWords } from "../shared/words";
import { WhoseClip } from "./WhoseClip";

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 10px 0 10px;
  flex-wrap: wrap;
  h1 {
    font-size: 25px;
    font-weight: 800;
  }
  p {
    color: ${colour("soft")};
  }
  div {
    margin-left: auto;
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
  }
`;
/** Head of a take with what can be done to it. */
export function TakeHead({ take, keys }: { take: Take; keys: Binding[] }) {
  const go = useNavigate();
  const again = useReadAgain(take.id);
  const remove = useDelete(take.id);
  const me = useMe();
  const [asking, setAsking] = useState(false);
  const mayDelete = me.data?.may.includes("delete") ?? false;
  const reads = take.state === "queued" || take.state === "reading";
  useKeys("Take", [
    ...keys,
    { key: "r", does: "read again", run: () => again.mutate(), off: reads || !take.clip },
    { key: "x", does: "delete this take", run: () => setAsking(true), off: !mayDelete },
  ]);
  return (
    <Head>
      <h1>{take.student.name}</h1>
      <p>
        {instrumentWords(take.instrument)} · {take.check.card ? `counted breathing ${checkWords(take.check)}` : "without a count"} · try{" "}
        {take.try_number}
      </p>
      <div>
        <Action letter="R" isDisabled={reads || !take.clip} onPress={() => again.mutate()}>
          {reads ? `${take.stage} ${Math.round(100 * take.progress)} %` : "Read again"}
        </Action>
        <WhoseClip take={take} />
        {mayDelete && (
          <Action letter="X" onPress={() => setAsking(true)}>
            Delete
          </Action>
        )}
        <Action main letter="H" onPress={() => go("/")}>
          Next student
        </Action>
      </div>
      {again.error && <p role="alert">{again.error.message}</p>}
      <Question
        isOpen={asking}
        onClose={() => setAsking(false)}
        title={`Delete ${firstName(take.student.name)}'s take?`}
        text="The clip, its copy, what was kept of it and every reading are deleted from this computer. This cannot be taken back."
        does="Delete it"
        keeps="Keep it"
        onDo={() => remove.mutate(undefined, { onSuccess: () => go("/") })}
        trouble={remove.error?.message}
      />
    </Head>
  );
}
