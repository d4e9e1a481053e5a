import { useState } from "react";
import styled from "styled-components";

import type { Verdict } from "../api/client";
import { useMe } from "../api/queries";
import { useOverrule, useOverrules } from "../api/said";
import { Action } from "../design/Action";
import { Said, TextLine } from "../design/Fields";
import { STATE_WORDS, type State } from "../design/StateMark";
import { colour } from "../design/tokens";

const Part = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 10px;
  padding-top: 6px;
  p {
    flex: 1 0 100%;
    color: ${colour("ink")};
  }
`;
const SAYS: readonly State[] = ["steady", "watch", "work"];

/** The teacher's own word instead of a verdict, with the reason; it can be taken back. */
export function Otherwise({ takeId, verdict }: { takeId: string; verdict: Verdict }) {
  const may = useMe().data?.may.includes("overrule") ?? false;
  const said = useOverrules(takeId).data?.overrules.find(({ criterion }) => criterion === verdict.criterion);
  const overrule = useOverrule(takeId);
  const [reason, setReason] = useState("");
  if (said)
    return (
      <Part>
        <p>
          {said.by || "A teacher"} says: <strong>{STATE_WORDS[said.state]}</strong>
          {said.reason && `, because ${said.reason}`}. Read: {STATE_WORDS[verdict.state]}.
        </p>
        {may && <Action onPress={() => overrule.mutate({ criterion: verdict.criterion, state: null, reason: "" })}>Take that back</Action>}
        {overrule.error && <Said role="alert">{overrule.error.message}</Said>}
      </Part>
    );
  if (!may) return null;
  return (
    <Part role="group" aria-label={`${verdict.title}: you see it otherwise`}>
      <TextLine label="You see it otherwise? Why" value={reason} onChange={setReason} maxLength={255} />
      {SAYS.filter((state) => state !== verdict.state).map((state) => (
        <Action key={state} onPress={() => overrule.mutate({ criterion: verdict.criterion, state, reason: reason.trim() })}>
          {STATE_WORDS[state]}
        </Action>
      ))}
      {overrule.error && <Said role="alert">{overrule.error.message}</Said>}
    </Part>
  );
}
