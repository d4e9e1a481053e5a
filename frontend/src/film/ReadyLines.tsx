import styled from "styled-components";

import { PHONE } from "../design/sizes";
import { StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import type { Readiness } from "./useReadiness";

const Lines = styled.ul`
  width: 100%;
  text-align: left;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: 28px minmax(0, 1fr);
    padding: 8px 0;
    border-bottom: 1px solid ${colour("hair")};
  }
  svg {
    margin-top: 4px;
  }
  b {
    font-size: 19px;
    font-weight: 500;
    line-height: 1.25;
  }
  span {
    grid-column: 2;
    font-size: 16px;
    color: ${colour("soft")};
  }
  @media ${PHONE} {
    li {
      padding: 5px 0;
    }
    [data-state="steady"] span {
      display: none;
    }
    &.counting {
      display: none;
    }
  }
`;
const ABOUT = ["light", "player", "camera"] as const;
const LOOKING = { light: "light", player: "player", camera: "camera" };

/** Whether a clip filmed now could be read: light, player, camera, each with what to do. */
export function ReadyLines({ readiness, counting }: { readiness: Readiness; counting: boolean }) {
  return (
    <Lines aria-label="Is it ready" aria-live="off" className={counting ? "counting" : ""} data-testid="ready">
      {ABOUT.map((about) => {
        const line = readiness.late ? undefined : readiness.lines.find((one) => one.about === about);
        return (
          <li key={about} data-state={line?.state ?? "waiting"}>
            {line ? <StateMark state={line.state} /> : <i />}
            <b>{line?.title ?? LOOKING[about]}</b>
            <span>{line?.do ?? (readiness.late ? "the live view is slow; film all the same" : "looking")}</span>
          </li>
        );
      })}
    </Lines>
  );
}
