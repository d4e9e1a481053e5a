import { Link } from "react-router";
import styled from "styled-components";

import type { Earlier, Take } from "../api/client";
import { usePast } from "../api/past";
import { Action } from "../design/Action";
import { ProgressRing, StateMark } from "../design/StateMark";
import { colour } from "../design/tokens";
import { EarlierDays } from "../shared/Earlier";
import { pastWords } from "../shared/past";
import { instrumentWords } from "../shared/words";
import { useUploads } from "../shared/uploads";
import { waitingWords } from "./waiting";

const Title = styled.h2`
  font-size: 16px;
  font-weight: 650;
  color: ${colour("soft")};
  padding-bottom: 9px;
  border-bottom: 1px solid ${colour("ink")};
`;
const Row = styled.div`
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
  .past {
    text-align: right;
  }
  .said:not(:last-child) {
    grid-column: 2;
  }
  .actions {
    display: flex;
    gap: 10px;
    margin-top: 8px;
  }
`;
const Empty = styled.p`
  padding: 18px 0;
  color: ${colour("soft")};
  max-width: 46ch;
`;

/** Clips as they come in and are read, newest first. On chalk a name and whether it is read, no verdict. */
export function JustRead({ takes, usual_s, chalk }: { takes: Take[]; usual_s: number; chalk: boolean }) {
  const uploads = useUploads();
  const past = usePast(takes, !chalk).data;
  return (
    <section aria-label="Just read">
      <Title>Just read</Title>
      {uploads.all.map((one) => (
        <Row key={one.key} data-testid="upload-row" data-state={one.trouble === null ? "sending" : "refused"}>
          {one.trouble === null ? <ProgressRing share={one.share} /> : !chalk && <StateMark state="unreadable" />}
          <span>
            <strong>{one.seat.student.name}</strong> <span className="quiet">{one.file.name}</span>
          </span>
          <span />
          {one.trouble === null ? (
            <span className="line quiet">
              {one.share < 1 ? `sending the clip, ${Math.round(100 * one.share)} %` : "looking into the file"}
            </span>
          ) : (
            <span className="line">
              <span role="alert">{chalk ? "not taken yet" : one.trouble}</span>
              <span className="actions">
                {one.again && <Action onPress={() => uploads.again(one)}>Send it again</Action>}
                <Action onPress={() => uploads.forget(one)}>Leave it</Action>
              </span>
            </span>
          )}
        </Row>
      ))}
      {!takes.length && !uploads.all.length && (
        <Empty>
          Nothing has been read yet. Drop a clip on this page, press C and choose one, or film with F: the reading appears here.
        </Empty>
      )}
      {takes.map((take) => (
        <TakeRow key={take.id} take={take} waits={waitingWords(take, takes, usual_s)} past={past?.[take.id]} chalk={chalk} />
      ))}
    </section>
  );
}

type RowProps = { take: Take; waits: string; past: Earlier | undefined; chalk: boolean };

function TakeRow({ take, waits, past, chalk }: RowProps) {
  const told = past && !chalk && !waits ? past : null;
  const words = told ? pastWords(told) : "";
  return (
    <Row as={Link} to={`/take/${take.id}`} data-testid="take-row" data-state={take.state}>
      <span>{waits ? <ProgressRing share={take.progress} /> : !chalk && <StateMark state={take.headline?.state ?? "unreadable"} />}</span>
      <span>
        <strong>{take.student.name}</strong> <span className="quiet">{instrumentWords(take.instrument)}</span>
      </span>
      <span className="quiet past">
        try {take.try_number}
        {told && <EarlierDays marks={told.marks} />}
      </span>
      <span className="line said">{chalk ? chalkLine(waits) : waits || lineOf(take)}</span>
      {words && <span className="quiet past">{words}</span>}
    </Row>
  );
}

/** What the class may read. */
const chalkLine = (waits: string) => (waits ? "being read" : "filmed");

function lineOf(take: Take): string {
  if (take.state === "failed") return take.reason_text;
  return take.headline?.words ?? "";
}
