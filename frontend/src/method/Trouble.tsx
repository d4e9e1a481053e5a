import styled from "styled-components";

import { Action } from "../design/Action";
import { Said } from "../design/Fields";

const Part = styled.div`
  display: grid;
  justify-items: start;
  gap: 10px;
  padding: 10px 0;
`;

/** A part of the page that did not load, and once more. */
export function Trouble({ words, onRetry }: { words: string; onRetry: () => void }) {
  return (
    <Part>
      <Said role="alert">{words}</Said>
      <Action onPress={onRetry}>Try again</Action>
    </Part>
  );
}
