import { Link } from "react-router";
import styled from "styled-components";

import type { Take } from "../api/client";
import { useSinceFirst } from "../api/said";
import { colour } from "../design/tokens";

const Line = styled.p`
  color: ${colour("soft")};
  font-size: 15px;
  b {
    color: ${colour("ink")};
  }
`;

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
