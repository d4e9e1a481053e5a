import styled from "styled-components";

import type { Take } from "../api/client";
import { colour } from "../design/tokens";
import { NextBar, TakeHead, WhatElse } from "./TakeHead";

const Waiting = styled.section`
  max-width: 640px;
  padding-top: 40px;
  h2 {
    font-size: 30px;
    font-weight: 800;
  }
  p {
    font-size: 19px;
    margin-top: 10px;
    color: ${colour("soft")};
  }
  progress {
    width: 100%;
    margin-top: 24px;
    accent-color: ${colour("ink")};
  }
`;

/** A take without a report: waiting, being read, or failed with its reason. */
export function UnreadTake({ take, trouble }: { take: Take; trouble: string | undefined }) {
  const failed = take.state === "failed";
  const text = failed ? take.reason_text : (trouble ?? "You can leave this page: the reading goes on, and the result drops into Today.");
  return (
    <>
      <TakeHead take={take} keys={[]} />
      <Waiting>
        <h2>{titleOf(take)}</h2>
        <p>{text}</p>
        <p className="unseen" role="status">
          {take.state === "reading" ? take.stage : titleOf(take)}
        </p>
        {!failed && <progress value={take.progress} max={1} aria-label="reading" />}
      </Waiting>
      <WhatElse take={take} />
      <NextBar take={take} />
    </>
  );
}

function titleOf(take: Take): string {
  if (take.state === "failed") return "This clip could not be read";
  if (take.state === "queued") return "Waiting to be read";
  return `${take.stage}, ${Math.round(100 * take.progress)} %`;
}
