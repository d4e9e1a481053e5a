import styled from "styled-components";

import type { Take } from "../api/client";
import { useRepetitions } from "../api/said";
import { colour } from "../design/tokens";
import { repeatWords } from "./repetitions";

const Line = styled.p`
  color: ${colour("soft")};
  font-size: 15px;
  b {
    color: ${colour("ink")};
  }
`;

/** How often this card was done correctly so far, and how many of them it usually takes here. */
export function Repetitions({ take }: { take: Take }) {
  const found = useRepetitions(take.id, take.headline?.report_version).data;
  const words = found && repeatWords(found);
  if (!words) return null;
  return (
    <Line>
      this card <b>{words.done}</b>
      {words.next && `: ${words.next}`}
    </Line>
  );
}
