import { useState, type ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";

import type { Take } from "../api/client";
import { useDelete, useMe, useReadAgain } from "../api/queries";
import { checkWords } from "../breathscore/layout";
import { besidesWords } from "../shared/asked";
import { Action } from "../design/Action";
import { useKeys, type Binding } from "../design/keys";
import { Question } from "../design/Question";
import { PHONE } from "../design/sizes";
import { colour } from "../design/tokens";
import { underThumb } from "../design/underThumb";
import { firstName, instrumentWords } from "../shared/words";
import { useOnward } from "./useOnward";
import { Record } from "./Record";
import { WhoseClip } from "./WhoseClip";

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 2px 14px;
  padding: 8px 0;
  flex-wrap: wrap;
  h1 {
    font-size: 25px;
    font-weight: 800;
  }
  h1 a:not(:hover) {
    text-decoration: none;
  }
  p {
    color: ${colour("soft")};
  }
  .asked {
    flex: 1 1 260px; /* what is long breaks here, before the ways on go to another line */
    min-width: 0;
    line-height: 1.25;
  }
`;
const Ways = styled.div`
  display: flex;
  gap: 10px;
  margin-left: auto;
  @media ${PHONE} {
    display: none; /* they stand where a thumb reaches them */
  }
`;
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-top: 12px;
  padding-top: 12px;
  border-top: 1px solid ${colour("hair")};
`;
const Bar = styled.div`
  display: none;
  @media ${PHONE} {
    display: flex;
    ${underThumb}
    margin: 14px -24px -20px;
    gap: 10px;
    > button {
      flex-basis: 0;
    }
  }
`;

const KINDS: Record<string, string> = { hold: "hold", posture: "posture", tone: "long tones" };

const askedWords = ({ check }: Take) => [countWords(check), besidesWords(check)].filter(Boolean).join("; ");

function countWords(check: Take["check"]): string {
  if (!check.card) return KINDS[check.kind] ?? "without a count";
  return check.kind === "counted_breathing" ? `counted breathing ${checkWords(check)}` : checkWords(check);
}

/** Head of a take: whose it is, what was asked, and the ways on. */
export function TakeHead({ take, keys }: { take: Take; keys: Binding[] }) {
  const { again, next, film, toNext } = useOnward(take);
  useKeys("Take", [...keys, { key: "f", does: "film this student once more", run: () => film?.(), off: !film }]);
  return (
    <Head>
      <h1>
        <Link to={`/student/${take.student.id}`}>{take.student.name}</Link>
      </h1>
      <div className="asked">
        <p>
          {instrumentWords(take.instrument)} · {askedWords(take)} · try {take.try_number}
        </p>
        <Record take={take} />
      </div>
      <Ways>
        {again && (
          <Action letter="F" onPress={() => film?.()}>
            {again.words}
          </Action>
        )}
        <Action main letter="H" onPress={toNext}>
          {next.words}
        </Action>
      </Ways>
    </Head>
  );
}

/** The ways on, where a thumb reaches them. */
export function NextBar({ take }: { take: Take }) {
  const { again, next, film, toNext } = useOnward(take);
  return (
    <Bar>
      {again && (
        <Action large onPress={() => film?.()}>
          {again.words}
        </Action>
      )}
      <Action main large onPress={toNext}>
        {next.short}
      </Action>
    </Bar>
  );
}

/** What else can be done with a take: none of it is needed while the class waits. */
export function WhatElse({ take, children }: { take: Take; children?: ReactNode }) {
  const go = useNavigate();
  const again = useReadAgain(take.id);
  const remove = useDelete(take.id, () => go("/"));
  const me = useMe();
  const [asking, setAsking] = useState(false);
  const mayDelete = me.data?.may.includes("delete") ?? false;
  const reads = take.state === "queued" || take.state === "reading";
  useKeys("Take, seldom", [
    { key: "r", does: "read again", run: () => again.mutate(), off: reads || !take.clip },
    { key: "x", does: "delete this take", run: () => setAsking(true), off: !mayDelete },
  ]);
  return (
    <Foot>
      {children}
      <Action letter="R" isDisabled={reads || !take.clip} onPress={() => again.mutate()}>
        {reads ? `${take.stage} ${Math.round(100 * take.progress)} %` : "Read again"}
      </Action>
      <WhoseClip take={take} />
      {mayDelete && (
        <Action letter="X" onPress={() => setAsking(true)}>
          Delete
        </Action>
      )}
      {again.error && <p role="alert">{again.error.message}</p>}
      {take.state === "failed" && <p role="status">The last reading failed, so this is the one before it: {take.reason_text}</p>}
      <Question
        isOpen={asking}
        onClose={() => setAsking(false)}
        title={`Delete ${firstName(take.student.name)}'s take?`}
        text="The clip, its copy, what was kept of it and every reading are deleted from this computer. This cannot be taken back."
        does="Delete it"
        keeps="Keep it"
        onDo={() => remove.mutate()}
        trouble={remove.error?.message}
      />
    </Foot>
  );
}
