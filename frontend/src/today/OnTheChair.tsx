import { ErrorBoundary } from "react-error-boundary";
import { Link } from "react-router";
import styled from "styled-components";

import type { Seat, Today } from "../api/client";
import { useReport } from "../api/queries";
import { BreathScore, NARROW_LEAST_PX } from "../breathscore/BreathScore";
import { breathCardOf, checkWords } from "../breathscore/layout";
import { Action } from "../design/Action";
import { PHONE } from "../design/sizes";
import { besidesWords, POSITIONS } from "../shared/asked";
import { dayWords, instrumentWords } from "../shared/words";
import { OtherCard } from "./OtherCard";

const Facts = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 24px;
  font-size: 17px;
  margin: 8px 0 16px;
`;
const SCORE_PX = 150;
/** Keeps the score's place until it comes: the buttons under it are not to move away from a finger. */
const Place = styled.div`
  min-height: ${SCORE_PX}px;
  @media ${PHONE} {
    min-height: ${NARROW_LEAST_PX}px;
  }
`;

/** A lesson does not stop for one reading that cannot be drawn. */
const NOT_DRAWN = <p role="status">This reading could not be drawn. The lesson goes on; what was filmed is kept.</p>;

/** Who is next, how they sit, what was read last, which card, and what else to know before the camera runs. */
export function OnTheChair({
  seat,
  lastTime,
  chalk,
  onSee,
}: {
  seat: Seat;
  lastTime: Today["last_time"][string] | undefined;
  chalk: boolean;
  onSee: (() => void) | undefined;
}) {
  const shownTake = seat.take?.state === "read" ? seat.take : lastTime;
  const report = useReport(shownTake?.id ?? "", shownTake?.headline?.report_version);
  const { student } = seat;
  const besides = besidesWords(seat.check);
  const comes = seat.take !== null && seat.take.state !== "failed";
  return (
    <>
      <p className="label">On the chair next</p>
      <h2>{chalk ? student.name : <Link to={`/student/${student.id}`}>{student.name}</Link>}</h2>
      <p className="setup">
        {instrumentWords(student.instrument)}, {POSITIONS[seat.check.position]}, {seat.side} side to the camera
      </p>
      {!chalk && (seat.take || (shownTake && !report.error)) && (
        <p className="card">
          {wordsOf(seat.take, lastTime)}{" "}
          {onSee && (
            <Action letter="E" onPress={onSee}>
              See the reading
            </Action>
          )}
        </p>
      )}
      {(shownTake || comes) && !chalk && !report.error && (
        <Place>
          <ErrorBoundary fallback={NOT_DRAWN} resetKeys={[report.data]}>
            {shownTake && report.data && <BreathScore report={report.data} card={breathCardOf(shownTake.check)} height={SCORE_PX} />}
          </ErrorBoundary>
        </Place>
      )}
      <p className="card">
        count card <b>{checkWords(seat.check)}</b>
        {besides && `; ${besides}`} {!chalk && <OtherCard seat={seat} />}
      </p>
      <Facts>
        {!chalk && (
          <li>
            {student.may_film_until
              ? `may be filmed until ${dayWords(student.may_film_until)}`
              : "no consent to film on record: ask the family first"}
          </li>
        )}
        {!chalk && seat.check.position === "lying" && !student.may_lie && (
          <li>no consent to lie down for drills on record: ask the family first, or choose a seated card</li>
        )}
        {student.note && !chalk && <li>{student.note}</li>}
        <li>Light-headed? Stop, breathe normally, sit.</li>
      </Facts>
    </>
  );
}

/** What the drawing under it is, and what became of what was filmed just now. */
function wordsOf(now: Seat["take"], before: Today["last_time"][string] | undefined): string {
  if (now?.state === "read") return `just now: ${now.headline?.words ?? ""}`;
  const told = now && `just now: ${now.state === "failed" ? "could not be read" : "being read"}`;
  return [before && `last time: ${before.headline?.words ?? ""}`, told].filter(Boolean).join("; ");
}
