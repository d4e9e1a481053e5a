import styled from "styled-components";

import { Action } from "../design/Action";
import { colour } from "../design/tokens";
import type { useTurns } from "./useTurns";

const Line = styled.div`
  grid-column: 1 / -1; /* under the score */
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
  margin-top: 6px;
  color: ${colour("soft")};
  font-size: 15px;
`;

/** What was put right by hand, and how it is done; nothing where nothing was. */
export function Mended({ mend }: { mend: ReturnType<typeof useTurns> }) {
  if (!mend.on && !mend.has) return null;
  return (
    <Line>
      {mend.on && (
        <p>
          Drag a ring, or choose it with Tab and use the arrows: the clip follows, and the reading is judged anew. Filled: moved by hand.
        </p>
      )}
      {!mend.on && <p>Turns or beat one stand where you put them.</p>}
      {mend.has && <Action onPress={mend.takeBack}>As it was read</Action>}
      {mend.trouble && <p role="alert">{mend.trouble}</p>}
    </Line>
  );
}
