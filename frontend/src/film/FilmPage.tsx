import { useEffect, useRef, useState, type DragEvent } from "react";
import { useLocation, useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { Card, Felt, Lesson, Seat } from "../api/client";
import { useMe, useSetAway, useToday } from "../api/queries";
import { checkWords, setsOf } from "../breathscore/layout";
import { mayBeAsked } from "../shared/asked";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { Message } from "../design/Message";
import { PHONE } from "../design/sizes";
import { useTitle } from "../design/title";
import { usePhone } from "../design/usePhone";
import { colour } from "../design/tokens";
import { notOneFile, useClipChooser } from "../shared/clipFile";
import type { Kept, Once } from "../shared/kept";
import { useInFront } from "../shared/useInFront";
import { firstName, instrumentWords } from "../shared/words";
import { nextAfter } from "../shared/order";
import { useUploads } from "../shared/uploads";
import { Before, Counting } from "./Count";
import { Filmed } from "./Filmed";
import { Devices } from "./Devices";
import { beatsOf, momentAt, sameMoment, type Moment } from "./counting";
import { Preview } from "./Preview";
import { ReadyLines } from "./ReadyLines";
import { RunLine, type RunHandle } from "./RunLine";
import { useCamera } from "./useCamera";
import { Shown } from "./Shown";
import { useReadiness } from "./useReadiness";
import { useRest } from "./useRest";
import { useRecording, type Recording } from "./useRecording";

const Page = styled.main`
  display: grid;
  grid-template-columns: minmax(0, 2.45fr) minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr) auto auto;
  gap: 10px 28px;
  height: 100vh;
  height: 100dvh;
  padding: 20px 24px;
  @media ${PHONE} {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 1.1fr) minmax(min-content, 1fr) auto auto;
    padding: 0 16px 16px;
  }
`;
const Wide = styled.div`
  grid-column: 1 / -1;
  min-width: 0;
`;
const Beside = styled.div`
  display: flex;
  flex-direction: column;
  min-height: 0;
  > section {
    flex: 1;
  }
`;
const Foot = styled.div`
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 12px;
  p {
    flex: 1 1 200px;
    line-height: 1.2;
    font-size: 18px;
    color: ${colour("soft")};
  }
  strong {
    margin-right: 6px;
    font-size: 22px;
    font-weight: 800;
    color: ${colour("ink")};
  }
  @media (max-width: 1150px) {
    p {
      flex-basis: 100%; /* the buttons stay in one row */
    }
  }
  @media ${PHONE} {
    gap: 10px;
    > button {
      flex: 1 1 28%;
      padding-inline: 8px;
      justify-content: center;
    }
    > button.start {
      order: -1;
      flex-basis: 100%;
    }
    p {
      font-size: 16px;
    }
    strong {
      font-size: 18px;
    }
  }
`;
/** Films the student of a chair in the page: count-in, clicks and a large count; it stops by itself, and the next chair comes. */
export function FilmPage() {
  const today = useToday();
  const go = useNavigate();
  const id = Number(useParams().seat);
  const seat = today.data?.lesson?.seats.find((one) => one.id === id);
  useTitle(seat ? `Film ${firstName(seat.student.name)}` : "Film");
  const away = { onGo: () => go("/"), goes: "Go to Today" };
  if (today.isPending) return null;
  if (!today.data)
    return <Message title="Today's lesson did not load" text={today.error.message} onRetry={() => today.refetch()} {...away} />;
  const { lesson, last_time } = today.data;
  if (!seat || !lesson) return <Message title="This chair is not in today's lesson" text="Choose another chair on Today." {...away} />;
  if (!mayBeAsked(seat.student, seat.check) || !seat.check.card) return <NotToFilm key={id} seat={seat} lesson={lesson} />;
  const breathes = seat.check.kind !== "hold"; // bringing the instrument up asks for no rest after breaths
  const restUntil_ms = breathes && seat.rest_s > 0 ? today.dataUpdatedAt + 1000 * seat.rest_s : 0;
  const last = seat.take ?? last_time[String(seat.student.id)];
  return (
    <Filming
      key={id}
      seat={seat}
      lesson={lesson}
      restUntil_ms={restUntil_ms}
      hidden={last?.headline?.hidden ?? false}
      filmedBefore={last != null}
    />
  );
}

/** A chair that is in front and cannot be filmed: another that is chosen on the other screen comes all the same. */
function NotToFilm({ seat, lesson }: { seat: Seat; lesson: Lesson }) {
  const go = useNavigate();
  useInFront(lesson, seat.id, (id) => go(`/film/${id}`));
  const [title, text] = mayBeAsked(seat.student, seat.check)
    ? ["There is nothing to count on this chair", "A clip from the phone can be added on Today instead."]
    : [`${firstName(seat.student.name)} is not filmed`, "What is missing stands on the teacher's own screen."];
  return <Message quiet title={title} text={text} onGo={() => go("/")} goes="Go to Today" />;
}

type FilmingProps = { seat: Seat; lesson: Lesson; restUntil_ms: number; hidden: boolean; filmedBefore: boolean };

/** The value, or what it was when it began to be held. */
function useHeld<T>(value: T, hold: boolean): T {
  const [held, setHeld] = useState(value);
  if (!hold && held !== value) setHeld(value);
  return hold ? held : value;
}

function Filming({ seat: now, lesson, restUntil_ms, hidden, filmedBefore }: FilmingProps) {
  const [goes, setGoes] = useState(false);
  const seat = useHeld(now, goes); // another card may be given meanwhile: what was begun is counted to its end
  const cards = setsOf(seat.check);
  const go = useNavigate();
  const uploads = useUploads();
  const camera = useCamera();
  const phone = usePhone();
  const [before] = useState(filmedBefore); // as it was when the chair came: this try itself counts for the next
  const [filmed, setFilmed] = useState<Kept | null>(null);
  const [set, setSet] = useState(0);
  const card = cards[set] ?? cards[0]!;
  const held = seat.check.with_instrument && seat.check.kind !== "hold"; // a hold without it is none
  const asked: Partial<Once> = useLocation().state ?? {}; // a take whose breath was hidden leads here
  const [once, setOnce] = useState<Once>({ withoutIt: held && asked.withoutIt === true, fromFront: false });
  const turn = (one: keyof Once) => setOnce({ ...once, [one]: !once[one] });
  const sideways = seat.check.view !== "front" && seat.check.kind !== "hold";
  const facing = seat.check.view === "front" || once.fromFront;
  const programme = useMe().data?.programme?.id;
  const recording = useRecording(camera.stream, { seat, lessonId: lesson.id, programme, card, set, once }, (kept) => {
    void uploads.sendKept(kept);
    if (camera.gone) return; // cut short: sent as far as it goes, and filmed again
    if (set + 1 < cards.length) setSet(set + 1);
    else setFilmed(kept);
  });
  const { stop } = recording;
  useEffect(() => {
    if (camera.gone) stop();
  }, [camera.gone, stop]);
  const video = useRef<HTMLVideoElement>(null);
  const asks = { wanted: facing ? ("front" as const) : (`side-${seat.side}` as const), held: held && !once.withoutIt };
  const readiness = useReadiness(video, camera.stream, asks, recording.running);
  const run = useRef<RunHandle>(null);
  const moment = useMoment(recording, card, run);
  const { running } = recording;
  if (goes !== (running || set > 0)) setGoes(!goes);
  const rest_s = useRest(restUntil_ms);
  const [showing, setShowing] = useState(false);
  const showed = useRef(!seat.check.shown);
  const start = () => {
    if (rest_s > 0) return;
    if (showed.current) return recording.start();
    showed.current = true; // once a chair: then it is the student's turn
    setShowing(true);
  };
  const busy = filmed !== null || showing;
  const setAway = useSetAway();
  const waits = !running && !busy && set === 0; // a clip that is there already takes the place of all that is filmed
  const chosen = useInFront(lesson, seat.id, (id) => go(`/film/${id}`), !running && !busy);
  const next = lesson.seats.find((one) => one.id === chosen && mayBeAsked(one.student, one.check)) ?? nextAfter(lesson, seat);
  const toNext = () => go(next ? `/film/${next.id}` : "/");
  const mark = (away: "not_here" | "not_today") => setAway.mutate({ seatId: seat.id, away }, { onSuccess: toNext });
  const [dropped, setDropped] = useState<string | null>(null);
  const send = (file: File) => {
    uploads.send(file, seat, lesson.id, once);
    toNext();
  };
  const chooser = useClipChooser<Seat>(send);
  const drop = ({ dataTransfer: { files } }: DragEvent) => {
    if (!waits) return;
    const trouble = notOneFile(files.length);
    setDropped(trouble);
    if (!trouble) send(files[0]!);
  };
  useKeys("Film", [
    {
      key: " ",
      shown: "space",
      does: running ? "stop, and keep what was filmed" : "start: count-in, then film",
      run: running ? recording.stop : start,
      off: busy,
    },
    { key: "g", does: "the count was lost: drop this and count in again", run: recording.again, off: !running },
    { key: "n", does: "not here: the next chair", run: () => mark("not_here"), off: running || busy },
    { key: "t", does: "not today: the next chair", run: () => mark("not_today"), off: running || busy },
    {
      key: "i",
      does: once.withoutIt ? "with the instrument after all" : "for this once without the instrument",
      run: () => turn("withoutIt"),
      off: running || busy || !held,
    },
    {
      key: "f",
      does: once.fromFront ? "from the side after all" : "for this once from the front: the shoulders",
      run: () => turn("fromFront"),
      off: running || busy || !sideways,
    },
    { key: "c", does: "choose a clip of this student instead", run: () => chooser.ask(seat), off: !waits },
    { key: "m", does: "clicks on or off", run: recording.turnSilent },
    { key: "Escape", shown: "Esc", does: "leave it", run: () => (running ? recording.drop() : go("/", { state: "chairs" })), off: busy },
  ]);
  if (filmed) {
    const on = (felt: Felt | null) => {
      if (felt) void uploads.sayFelt(filmed, felt);
      toNext();
    };
    return <Filmed seat={seat} next={next} before={before} onFelt={on} onToday={() => go("/", { state: "chairs" })} />;
  }
  return (
    <Page onDrop={drop}>
      {showing && (
        <Shown
          address={seat.check.shown}
          onEnd={() => {
            setShowing(false);
            recording.start();
          }}
        />
      )}
      <Preview
        camera={camera}
        videoRef={video}
        running={running}
        beat_s={60 / card.tempo_bpm}
        beats={beatsOf(card)}
        beat={recording.beat}
      />
      <Beside>
        {moment ? (
          <Counting moment={moment} card={card} check={seat.check} />
        ) : (
          <Before
            seat={seat}
            set={set}
            rest_s={rest_s}
            without={held ? { pressed: once.withoutIt, hidden, turn: () => turn("withoutIt") } : null}
            facing={{ is: facing, turn: sideways ? () => turn("fromFront") : null }}
            trouble={recording.trouble ?? dropped ?? camera.trouble ?? setAway.error?.message ?? null}
            onRetry={camera.retry}
          />
        )}
        {running && recording.trouble && <p role="alert">{recording.trouble}</p>}
        {camera.stream && !camera.trouble && <ReadyLines readiness={readiness} counting={running} />}
        {!running && !phone && <Devices camera={camera} />}
      </Beside>
      <Wide>
        <RunLine key={set} card={card} hold={seat.check.kind === "hold"} handle={run} />
      </Wide>
      <Foot>
        <p>
          <strong>{seat.student.name}</strong> {instrumentWords(seat.student.instrument)}, {checkWords(seat.check)}
          {next && `, after that ${firstName(next.student.name)}`}
        </p>
        <Action large letter="M" pressed={recording.silent} onPress={recording.turnSilent}>
          Click off
        </Action>
        {running ? (
          <Action large letter="G" onPress={recording.again}>
            Again from the count-in
          </Action>
        ) : (
          <>
            <Action large letter="N" onPress={() => mark("not_here")}>
              Not here
            </Action>
            <Action large letter="T" onPress={() => mark("not_today")}>
              Not today
            </Action>
            {waits && (
              <Action large letter="C" onPress={() => chooser.ask(seat)}>
                A file
              </Action>
            )}
            <Action large letter="Esc" onPress={() => go("/", { state: "chairs" })}>
              Today
            </Action>
          </>
        )}
        <Action
          className="start"
          large
          main
          letter="space"
          isDisabled={!camera.stream || (!running && rest_s > 0)}
          onPress={running ? recording.stop : start}
        >
          {running ? "Stop" : startWords(rest_s)}
        </Action>
        {!running && phone && <Devices camera={camera} />}
        {chooser.input}
      </Foot>
    </Page>
  );
}

const startWords = (rest_s: number) => (rest_s > 0 ? `Rest ${rest_s} s` : "Start");

const LINE_MS = 66; // between two places of the line: as often as the screen is drawn it costs a slow laptop the camera's pictures

/** Where the count stands: as each of its moments begins, and the line's place between them. */
function useMoment(recording: Recording, card: Card, run: React.RefObject<RunHandle | null>): Moment | null {
  const [moment, setMoment] = useState<Moment | null>(null);
  const latest = useRef(recording);
  useEffect(() => {
    latest.current = recording;
  });
  useEffect(() => {
    if (!recording.running) {
      run.current?.show(0); // what was dropped begins anew
      return;
    }
    const beat_ms = 60_000 / card.tempo_bpm;
    let asked = 0;
    let shown: Moment | null = null;
    const look = () => {
      const beat = latest.current.beat();
      let left_ms = Infinity;
      if (beat !== null) {
        run.current?.show(beat);
        const now = momentAt(card, Math.max(beat, 0));
        if (!shown || !sameMoment(shown, now)) setMoment((shown = now));
        left_ms = (now.until - beat) * beat_ms + 1; // a timer may come early by a part of a millisecond
      }
      asked = window.setTimeout(look, Math.min(left_ms, LINE_MS));
    };
    look();
    return () => {
      clearTimeout(asked);
      setMoment(null);
    };
  }, [recording.running, card, run]);
  return recording.running ? moment : null;
}
