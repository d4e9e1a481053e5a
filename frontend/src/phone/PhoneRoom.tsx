import { useEffect } from "react";
import { Navigate, Route, Routes, useLocation, useNavigate } from "react-router";
import styled from "styled-components";

import { useToday } from "../api/queries";
import { useTold } from "../api/told";
import { Action } from "../design/Action";
import { mayBeAsked } from "../shared/asked";
import { Message } from "../design/Message";
import { colour } from "../design/tokens";
import { FilmPage } from "../film/FilmPage";
import { useAwake } from "../shared/useAwake";
import { instrumentWords } from "../shared/words";
import { useUploads } from "../shared/uploads";

const Page = styled.main`
  padding: 16px;
  display: grid;
  gap: 10px;
  h1 {
    font-size: 22px;
    font-weight: 800;
  }
  ol {
    list-style: none;
    display: grid;
    gap: 8px;
  }
  li > button {
    width: 100%;
    min-height: 60px;
    justify-content: space-between;
  }
  small {
    font-size: 16px;
    font-weight: 400;
    color: ${colour("soft")};
  }
`;

/** All that a paired phone shows: the chairs, filmed or not yet, and the camera. */
export function PhoneRoom() {
  useTold();
  useAwake(true); // between two students as well
  useEffect(() => {
    document.documentElement.dataset.scheme = "chalk"; // the class sees it
  }, []);
  return (
    <Routes>
      <Route path="/film/:seat" element={<FilmPage />} />
      <Route path="/" element={<ChairsHere />} />
      <Route path="*" element={<Navigate to="/" replace />} />
    </Routes>
  );
}

function ChairsHere() {
  const go = useNavigate();
  const today = useToday();
  const uploads = useUploads();
  const fresh = useLocation().state === null;
  if (today.isPending) return null;
  if (!today.data) return <Message title="Today's lesson did not load" text={today.error.message} onRetry={() => today.refetch()} />;
  const { lesson } = today.data;
  if (!lesson) return <Message quiet title="No lesson yet" text="The chairs come here as soon as the teacher opens a lesson." />;
  const waits = lesson.seats.filter((seat) => seat.take === null && !seat.away && mayBeAsked(seat.student, seat.check));
  const first = waits.find(({ id }) => id === lesson.seat_now?.seat_id) ?? waits[0];
  if (fresh && first) return <Navigate to={`/film/${first.id}`} replace />;
  return (
    <Page>
      <h1>{lesson.title}</h1>
      {uploads.all.length > 0 && (
        <p role="status">
          {uploads.all.some((one) => one.trouble && one.again)
            ? "A clip waits on this phone: the line is gone. It is sent as soon as it is back."
            : "Sending."}
        </p>
      )}
      {uploads.all
        .filter((one) => one.trouble && one.again)
        .map((one) => (
          <Action key={one.key} large main onPress={() => uploads.again(one)}>
            Send {one.seat.student.name}&apos;s clip again
          </Action>
        ))}
      <ol>
        {lesson.seats.map((seat) => (
          <li key={seat.id}>
            <Action large isDisabled={!mayBeAsked(seat.student, seat.check)} onPress={() => go(`/film/${seat.id}`)}>
              {seat.student.name} <small>{seat.take ? "filmed" : instrumentWords(seat.student.instrument)}</small>
            </Action>
          </li>
        ))}
      </ol>
    </Page>
  );
}
