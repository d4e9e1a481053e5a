import { useState } from "react";
import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Examples, Proposed } from "../api/client";
import { useExamples, useProposed, useUseLine } from "../api/said";
import { Action } from "../design/Action";
import { ChoiceLine, Said } from "../design/Fields";
import { useKeys } from "../design/keys";
import { colour } from "../design/tokens";
import { digits, valueWords } from "../shared/valueWords";
import { firstName } from "../shared/words";
import { agreesWords, bothSides, placeOf, sortedBy, type Sorted } from "./example";
import { TravelGlyph } from "./TravelGlyph";
import { Trouble } from "./Trouble";

const Part = styled.section`
  margin-top: 22px;
  padding-top: 12px;
  border-top: 1px solid ${colour("ink")};
  h2 {
    font-size: 16px;
    font-weight: 700;
  }
  p {
    padding-top: 8px;
  }
`;
const Columns = styled.div<{ $of: number }>`
  display: grid;
  grid-template-columns: auto repeat(${(p) => Math.max(p.$of, 1)}, minmax(0, 1fr));
  padding-top: 12px;
`;
const Column = styled(Button)<{ $fine: boolean; $line: "before" | "none" }>`
  display: grid;
  grid-template-rows: 64px 64px auto auto;
  justify-items: center;
  padding: 0 0 4px;
  border: 0;
  border-left: 3px solid ${(p) => (p.$line === "before" ? colour("ink") : "transparent")};
  background: none;
  color: inherit;
  font: inherit;
  font-size: 13px;
  cursor: pointer;
  overflow: hidden;
  svg {
    grid-row: ${(p) => (p.$fine ? 1 : 2)};
  }
  b {
    grid-row: 3;
    font-size: 14px;
  }
  small {
    grid-row: 4;
    font-size: 12px;
    color: ${colour("soft")};
  }
  &[data-hovered] {
    background: ${colour("wash")};
  }
`;
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  padding-top: 12px;
`;

const Labels = styled.div`
  display: grid;
  grid-template-rows: 64px 64px;
  align-items: center;
  padding-right: 8px;
  font-size: 13px;
  color: ${colour("soft")};
`;
const EXAMPLES = 8;

type Props = { may: boolean; onShow: (proposed: Proposed) => void };

/** A limit drawn by example: eight takes in the order of their number, up is fine, down is not; the line that agrees best stands between them. */
export function ByExample({ may, onShow }: Props) {
  const [criterion, setCriterion] = useState<Examples["criterion"]>("abdomen_leads");
  const [skip, setSkip] = useState(0);
  const found = useExamples(criterion, skip);
  const [moved, setMoved] = useState<Sorted>({});
  const shown = found.data;
  const sorted = shown ? sortedBy(shown, moved) : {};
  const line = useProposed(shown, sorted, Object.keys(moved).length > 0 && bothSides(sorted));
  const use = useUseLine();
  const take = () => {
    if (line.data) use.mutate({ criterion, value: line.data.value }, { onSuccess: () => setMoved({}) });
  };
  useKeys("By example", [{ key: "l", does: "use the line drawn by example", run: take, off: !may || !line.data }]);
  if (found.error && !shown)
    return <Trouble words={`Takes to sort did not load: ${found.error.message}`} onRetry={() => void found.refetch()} />;
  if (!shown || (shown.examples.length < 2 && skip === 0)) return null;
  const full = shown.examples.length === EXAMPLES;
  const judged = { criterion, unit: shown.unit };
  const at = line.data?.value ?? shown.now;
  const ask = (more: Examples["criterion"], from: number) => {
    setCriterion(more);
    setSkip(from);
    setMoved({});
  };
  return (
    <Part aria-labelledby="by-example">
      <h2 id="by-example">Or draw the line by example</h2>
      <ChoiceLine
        label="for"
        value={criterion}
        options={Object.entries(shown.criteria).map(([value, words]) => ({ value, words: words ?? value }))}
        onChange={(key) => ask(key as Examples["criterion"], 0)}
      />
      <p>Up is fine, down is not fine; press a take to move it.</p>
      <Columns $of={shown.examples.length} role="group" aria-label="takes to sort">
        <Labels aria-hidden>
          <span>fine</span>
          <span>not fine</span>
        </Labels>
        {shown.examples.map((one, i) => (
          <Column
            key={one.take_id}
            $fine={sorted[one.take_id]!}
            $line={placeOf(shown.examples, at) === i ? "before" : "none"}
            aria-label={`${one.student}, ${valueWords({ ...judged, value: one.value })}, ${sorted[one.take_id] ? "fine" : "not fine"}`}
            aria-pressed={sorted[one.take_id]}
            isDisabled={!may}
            onPress={() => setMoved({ ...moved, [one.take_id]: !sorted[one.take_id] })}
          >
            <TravelGlyph {...one} />
            <b>{digits(judged, one.value)}</b>
            <small>{firstName(one.student)}</small>
          </Column>
        ))}
      </Columns>
      <p aria-live="polite">{agreesWords(shown, sorted, line.data ?? null)}</p>
      {(line.error ?? use.error) && <Said role="alert">{(line.error ?? use.error)!.message}</Said>}
      <Foot>
        {line.data && (
          <Action main letter="L" onPress={take} isDisabled={!may}>
            Use {valueWords({ ...judged, value: line.data.value })}
          </Action>
        )}
        {line.data && line.data.count > 0 && <Action onPress={() => onShow(line.data!)}>Show the {line.data.count}</Action>}
        {(full || skip > 0) && (
          <Action onPress={() => ask(criterion, full ? skip + EXAMPLES : 0)}>{full ? "Eight others" : "The first again"}</Action>
        )}
      </Foot>
    </Part>
  );
}
