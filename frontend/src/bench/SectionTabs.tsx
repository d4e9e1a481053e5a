import { NavLink } from "react-router";
import styled from "styled-components";

import type { Section } from "../api/client";
import { colour } from "../design/tokens";
import { useNow } from "./useNow";
import { clock, runOf, standingWords, waitsSince } from "./way";

const Line = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  font-size: 15px;
  a {
    display: flex;
    align-items: center;
    gap: 6px;
    min-height: 56px; /* tapped in class */
    padding: 0 8px;
    color: ${colour("soft")};
    text-decoration: none;
    border-bottom: 3px solid transparent;
  }
  a[aria-current="page"] {
    color: ${colour("ink")};
    border-bottom-color: ${colour("ink")};
  }
  b {
    color: ${colour("ink")};
    font-weight: 700;
  }
`;

/** The sections that are on their way, side by side: where each stands, and which waits for a hand and how long. */
export function SectionTabs({ sections, now: shown }: { sections: Section[]; now: string }) {
  const running = sections.filter((one) => one.runs.some((run) => !run.done));
  if (running.length < 2) return null;
  return (
    <Line aria-label="Sections on their way">
      {running.map((section) => (
        <Tab key={section.card} section={section} here={section.card === shown} />
      ))}
    </Line>
  );
}

function Tab({ section, here }: { section: Section; here: boolean }) {
  const phase = runOf(section, "together") ? "together" : "away";
  const run = runOf(section, phase);
  const now = useNow();
  const since = waitsSince(run);
  return (
    <NavLink to={`/bench/${section.card}/${phase}`} aria-current={here ? "page" : undefined}>
      {section.section} {since === null ? standingWords(section) : <b>{`waits ${clock(Math.max(now - since, 0) / 1000)}`}</b>}
    </NavLink>
  );
}
