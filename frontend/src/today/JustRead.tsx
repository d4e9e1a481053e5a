import { Link } from "react-router";
import styled from "styled-components";

import type { Take } from "../api/client";
import { ProgressRing, StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import { instrumentWords } from "../shared/words";

const Title = styled.h2`
  font-size: 16px;
  font-weight: 650;
  color: ${colour("soft")};
  padding-bottom: 9px;
  border-bottom: 1px solid ${colour("ink")};
`;
const Row = styled(Link)`
  display: grid;
  grid-template-columns: 26px 1fr auto;
  gap: 4px 10px;
  padding: 10px 4px;
  border-bottom: 1px solid ${colour("hair")};
  text-decoration: none;
  min-height: 62px;
  &:hover {
    background: ${colour("wash")};
  }
  strong {
    font-weight: 650;
  }
  .quiet {
    color: ${colour("soft")};
  }
  .line {
    grid-column: 2 / -1;
  }
`;
const Empty = styled.p`
  padding: 18px 0;
  color: ${colour("soft")};
  max-width: 46ch;
`;

/** Clips as they come in and are read, newest first. On chalk a name and whether it is read, no verdict. */
export function JustRead({ takes, sending, chalk }: { takes: Take[]; sending: { name: string; share: number }[]; chalk: boolean }) {
  return (
    <section aria-label="Just read" aria-live="polite">
      <Title>Just read</Title>
      {sending.map((one) => (
        <Row key={one.name} to="/" as="div">
          <ProgressRing share={one.share} />
          <span>
            <strong>{one.name}</strong>
          </span>
          <span />
          <span className="line quiet">sending the clip, {Math.round(100 * one.share)} %</span>
        </Row>
      ))}
      {!takes.length && !sending.length && (
        <Empty>Nothing has been read yet. Drop a clip on this page, or press F and choose one: the reading appears here.</Empty>
      )}
      {takes.map((take) => (
        <TakeRow key={take.id} take={take} chalk={chalk} />
      ))}
    </section>
  );
}

function TakeRow({ take, chalk }: { take: Take; chalk: boolean }) {
  const waits = take.state === "queued" || take.state === "reading";
  return (
    <Row to={`/take/${take.id}`} data-testid="take-row" data-state={take.state}>
      <span>{waits ? <ProgressRing share={take.progress} /> : !chalk && <StateMark state={take.headline?.state ?? "unreadable"} />}</span>
      <span>
        <strong>{take.student.name}</strong> <span className="quiet">{instrumentWords(take.instrument)}</span>
      </span>
      <span className="quiet">try {take.try_number}</span>
      <span className="line">{chalk ? chalkLine(waits) : lineOf(take)}</span>
    </Row>
  );
}

/** What the class may read. */
const chalkLine = (waits: boolean) => (waits ? "being read" : "filmed");

function lineOf(take: Take): string {
  if (take.state === "queued") return "waiting to be read";
  if (take.state === "reading") return `${take.stage}, ${Math.round(100 * take.progress)} %`;
  if (take.state === "failed") return take.reason_text;
  return take.headline?.words ?? "";
}
