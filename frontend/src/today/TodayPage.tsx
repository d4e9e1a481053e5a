import { useEffect, useRef, useState } from "react";
import { DropZone, type DropZoneProps } from "react-aria-components";
import { useLocation, useNavigate } from "react-router";
import styled from "styled-components";

import type { Lesson, Seat, Today } from "../api/client";
import { useSetAway, useToday } from "../api/queries";
import { mayBeAsked } from "../shared/asked";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { useTitle } from "../design/title";
import { Message } from "../design/Message";
import { PHONE } from "../design/sizes";
import { colour } from "../design/tokens";
import { underThumb } from "../design/underThumb";
import { firstName } from "../shared/words";
import { CareDue } from "./CareDue";
import { Chairs } from "./Chairs";
import { JustRead } from "./JustRead";
import { OnTheChair } from "./OnTheChair";
import { PairPhone } from "../phone/PairPhone";
import { useInFront } from "../shared/useInFront";
import { notOneFile, useClipChooser } from "../shared/clipFile";
import { filmed, nextOf, waiting } from "../shared/order";
import { minuteOf, paceWords } from "./pace";
import { useUploads } from "../shared/uploads";
import { useOrder } from "./useOrder";
import { secondsLeft } from "./waiting";

const Page = styled(DropZone)`
  min-height: calc(100vh - 70px);
  &[data-drop-target] {
    outline: 3px dashed ${colour("ink")};
    outline-offset: -6px;
    background: ${colour("wash")};
  }
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 16px;
  padding: 16px 0 10px;
  h1 {
    font-size: 24px;
    font-weight: 800;
  }
  p {
    color: ${colour("soft")};
    font-size: 17px;
  }
  @media ${PHONE} {
    gap: 6px 16px; /* the next student's name is to be seen over the buttons */
  }
`;
const Aside = styled.span`
  margin-left: auto;
  display: flex;
  gap: 18px;
  color: ${colour("soft")};
  font-size: 15px;
  @media ${PHONE} {
    flex: 1 0 100%; /* a line of its own: what is due comes a moment later, and nothing under it is to move */
  }
`;
const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 34px;
  padding-top: 14px;
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Next = styled.section`
  .label {
    color: ${colour("soft")};
    font-weight: 650;
  }
  h2 {
    font-size: clamp(30px, 3.6vw, 46px);
    font-weight: 800;
    line-height: 1.08;
    letter-spacing: -0.01em;
    a:not(:hover) {
      text-decoration: none;
    }
  }
  .setup {
    font-size: 20px;
    margin-top: 4px;
  }
  .card {
    font-size: 17px;
    color: ${colour("soft")};
    margin: 8px 0 2px;
    b {
      color: ${colour("ink")};
    }
    button {
      margin-left: 8px;
    }
  }
`;
const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  @media ${PHONE} and (min-width: 360px) and (min-height: 600px) {
    ${underThumb}
    > button:first-of-type {
      flex-basis: 100%;
    }
    > button:not(:first-of-type) {
      min-height: 48px;
    }
  }
`;
const Said = styled.p`
  border-left: 4px solid ${colour("ink")};
  padding: 2px 0 2px 12px;
  margin-top: 14px;
  font-size: 17px;
  max-width: 60ch;
`;

type Dropped = Parameters<NonNullable<DropZoneProps["onDrop"]>>[0];

/** Who is next, and is everything ready. */
export function TodayPage({ chalk }: { chalk: boolean }) {
  const go = useNavigate();
  const today = useToday();
  useTitle("Today");
  if (today.isPending)
    return (
      <p className="unseen" role="status">
        Loading today's lesson
      </p>
    );
  if (!today.data) return <Message title="Today's lesson did not load" text={today.error.message} onRetry={() => today.refetch()} />;
  if (!today.data.lesson)
    return (
      <Message
        quiet
        title="No lesson is planned yet"
        text="Put the class together, say whose letter about filming is back, and plan the first lesson: all of it on the page Class."
        onGo={() => go("/class")}
        goes="Go to the class"
      />
    );
  return <LessonOfToday today={today.data} lesson={today.data.lesson} chalk={chalk} />;
}

const MARK_WORDS: Record<Seat["away"], string> = { not_here: "not here", not_today: "not filmed today", "": "back in the line" };

type Undo = { seat: Seat; was: Seat["away"]; words: string };

/** The page stays while the line hiccups: what was known is shown until it is known better. */
function LessonOfToday({ today, lesson: kept, chalk }: { today: Today; lesson: Lesson; chalk: boolean }) {
  const go = useNavigate();
  const [said, setSaid] = useState("");
  const { lesson, move, nudge } = useOrder(kept, setSaid);
  const uploads = useUploads();
  const setAway = useSetAway();
  const sending = uploads.all.filter((one) => one.trouble === null);
  const busy = sending.map((one) => one.seat.id);
  const nextFree = (except?: Seat) => nextOf(lesson, busy, except);
  // the chair in front changes by the teacher's own doing only, never because something arrives
  const [chosenId, setChosenId] = useState<number | undefined>(() => nextFree()?.id);
  const [undo, setUndo] = useState<Undo | null>(null);
  const marking = useRef<Promise<unknown>>(Promise.resolve());
  const seat = lesson.seats.find((s) => s.id === chosenId) ?? lesson.seats[0];
  const [pairing, setPairing] = useState(false);
  const left: string = useLocation().state?.left ?? ""; // of a lesson that was planned just now
  const now = useNow();
  const pace = paceWords(lesson, now);
  useInFront(lesson, seat?.id, (id) => setChosenId(id)); // a paired phone went on, by the teacher's hand or the student's

  const choose = (id: number | undefined) => {
    setChosenId(id);
    setSaid("");
    setUndo(null);
  };
  const send = (file: File, of: Seat) => {
    uploads.send(file, of, lesson.id);
    if (of.id === seat?.id) choose(nextFree(of)?.id ?? of.id);
  };
  const drop = async (event: Dropped) => {
    const files = event.items.filter((one) => one.kind === "file");
    const of = seat;
    const trouble = notOneFile(files.length);
    if (trouble) setSaid(trouble);
    else if (of && !mayBeAsked(of.student, of.check))
      setSaid(`${firstName(of.student.name)} may not be filmed for this yet: choose the chair the clip belongs to.`);
    else if (of) send(await files[0]!.getFile(), of);
  };
  const chooser = useClipChooser<Seat>(send);
  const ask = () => seat && chooser.ask(seat);
  // one mark after the other, so that taking one back never overtakes it
  const setMark = (of: Seat, away: Seat["away"]) => {
    const marked = marking.current.then(() => setAway.mutateAsync({ seatId: of.id, away }));
    marking.current = marked.catch((error: Error) => {
      setUndo(null);
      setSaid(error.message);
    });
  };
  const mark = (away: "not_here" | "not_today") => {
    if (!seat) return;
    const now = seat.away === away ? "" : away;
    const words = `${firstName(seat.student.name)} is ${MARK_WORDS[now]}.`;
    setMark(seat, now);
    if (now) choose(nextFree(seat)?.id ?? seat.id);
    setUndo({ seat, was: seat.away, words });
  };
  const takeBack = () => {
    if (!undo) return;
    setMark(undo.seat, undo.was);
    choose(undo.seat.id);
  };
  const step = (by: number) => {
    const i = lesson.seats.findIndex((s) => s.id === seat?.id);
    choose(lesson.seats[(i + by + lesson.seats.length) % lesson.seats.length]?.id);
  };
  const film = () => seat && go(`/film/${seat.id}`);
  const mayFilm = seat !== undefined && mayBeAsked(seat.student, seat.check);
  const newest = today.just_read[0];
  useKeys("Today", [
    { key: "f", does: "film the student on the chair", run: film, off: !mayFilm },
    { key: "c", does: "choose a clip of the student on the chair", run: ask, off: !mayFilm },
    { key: "n", does: "not here", run: () => mark("not_here") },
    { key: "t", does: "not today", run: () => mark("not_today") },
    { key: "z", does: "take back the last mark", run: takeBack, off: !undo },
    { key: "m", does: "the mirror: see oneself breathe", run: () => go("/mirror") },
    { key: "p", does: "a phone films", run: () => setPairing(true) },
    { key: ",", does: "this chair comes one earlier", run: () => seat && nudge(seat, -1) },
    { key: ".", does: "this chair comes one later", run: () => seat && nudge(seat, 1) },
    { key: "ArrowRight", shown: "→", does: "next chair", run: () => step(1) },
    { key: "ArrowLeft", shown: "←", does: "chair before", run: () => step(-1) },
    {
      key: "e",
      does: "open the reading of the student on the chair",
      run: () => seat?.take && go(`/take/${seat.take.id}`),
      off: !seat?.take,
    },
    { key: "o", does: "open the newest reading", run: () => newest && go(`/take/${newest.id}`) },
  ]);
  return (
    <Page onDrop={drop} getDropOperation={() => "copy"} aria-label="Drop a clip here" data-testid="drop">
      <Head>
        <h1>{lesson.title}</h1>
        <p>
          {countWords(lesson)}
          {[pace && `, ${pace}`, left && `; ${left}`]}
        </p>
        <Aside>
          <CareDue />
          <a href="/api/rota.ics">for the calendar</a>
        </Aside>
        <Action letter="M" onPress={() => go("/mirror")}>
          Mirror
        </Action>
        <Action letter="P" onPress={() => setPairing(true)}>
          A phone films
        </Action>
      </Head>
      <PairPhone isOpen={pairing} onClose={() => setPairing(false)} />
      <Chairs
        minute={minuteOf(lesson, now)}
        lesson={lesson}
        chosen={seat}
        sending={busy}
        waits={secondsOf(today)}
        chalk={chalk}
        onChoose={(one) => choose(one.id)}
        onMove={move}
      />
      <Columns>
        {seat && (
          <Next aria-label="On the chair next">
            <OnTheChair
              seat={seat}
              lastTime={today.last_time[String(seat.student.id)]}
              chalk={chalk}
              onSee={seat.take && !chalk ? () => go(`/take/${seat.take!.id}`) : undefined}
            />
            <Actions>
              {(mayFilm || !chalk) && (
                <>
                  <Action main large letter="F" isDisabled={!mayFilm} onPress={film}>
                    Film {firstName(seat.student.name)}
                  </Action>
                  <Action large letter="C" isDisabled={!mayFilm} onPress={ask}>
                    A file
                  </Action>
                </>
              )}
              {chooser.input}
              <Action large letter="N" onPress={() => mark("not_here")}>
                {seat.away === "not_here" ? "Here after all" : "Not here"}
              </Action>
              <Action large letter="T" onPress={() => mark("not_today")}>
                {seat.away === "not_today" ? "Today after all" : "Not today"}
              </Action>
            </Actions>
            {undo && (
              <Said role="status">
                {undo.words}{" "}
                <Action letter="Z" onPress={takeBack}>
                  Take it back
                </Action>
              </Said>
            )}
            {said && <Said role="alert">{chalk ? "That was not taken. The teacher's own screen says why." : said}</Said>}
          </Next>
        )}
        <JustRead takes={today.just_read} usual_s={today.usual_read_s} chalk={chalk} />
      </Columns>
    </Page>
  );
}

/** Seconds until each take is read that waits for it, by its id. */
const secondsOf = ({ just_read: takes, usual_read_s: usual }: Today) =>
  new Map(takes.map((take) => [take.id, secondsLeft(take, takes, usual)]));

const TICK_MS = 15_000;

/** The time, now and then. */
function useNow(): Date {
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    const ticking = setInterval(() => setNow(new Date()), TICK_MS);
    return () => clearInterval(ticking);
  }, []);
  return now;
}

function countWords(lesson: Lesson): string {
  const left = lesson.seats.filter(waiting).length;
  const done = lesson.seats.filter(filmed).length;
  return left ? `${left} to film, ${done} filmed` : "everyone who is here has been filmed";
}
