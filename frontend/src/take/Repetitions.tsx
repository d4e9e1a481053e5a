import { Link } from "react-router";
import styled from "styled-components";

import type { Take } from "../api/client";
import { useRepetitions, useSinceFirst } from "../api/said";
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

/** What has sunk since the first take of the same sitting, with the way to it: a rest is what helps. */
export function SinceFirst({ take }: { take: Take }) {
  const found = useSinceFirst(take.id, take.headline?.report_version).data;
  if (!found?.take_id || !found.sunk.length) return null;
  return (
    <Line data-testid="since-first">
      since <Link to={`/take/${found.take_id}`}>the first take, {found.minutes} min ago</Link>: <b>{found.sunk.join(", ")}</b>; rest first
    </Line>
  );
}
