import { useEffect, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { Card, Lesson, Seat } from "../api/client";
import { useToday } from "../api/queries";
import { checkWords } from "../breathscore/layout";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { Message } from "../design/Message";
import { PHONE } from "../design/sizes";
import { useTitle } from "../design/title";
import { colour, onClip } from "../design/tokens";
import { firstName, instrumentWords } from "../shared/words";
import { useUploads } from "../today/uploads";
import { beatsOf, momentAt, PART_WORDS, type Moment } from "./counting";
import { RunLine, type RunHandle } from "./RunLine";
import { useCamera, type Camera } from "./useCamera";
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
    grid-template-rows: minmax(0, 1.1fr) minmax(0, 1fr) auto auto;
    padding: 0 16px 16px;
  }
`;
const Picture = styled.div`
  position: relative;
  border-radius: 6px;
  overflow: hidden;
  background: ${colour("sheet")};
  video {
    width: 100%;
    height: 100%;
    object-fit: contain;
    display: block;
  }
  @media ${PHONE} {
    margin: 0 -16px;
    border-radius: 0;
  }
`;
const Guide = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
`;
const OnPicture = styled.p`
  position: absolute;
  left: 16px;
  bottom: 12px;
  @media ${PHONE} {
    bottom: auto;
    top: 6px;
  }
  color: ${onClip.light};
  font-size: 18px;
  font-weight: 650;
  text-shadow:
    0 0 4px ${onClip.dark},
    0 0 2px ${onClip.dark};
`;
const Count = styled.section`
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  text-align: center;
  min-height: 0;
  .part {
    font-size: 30px;
    font-weight: 650;
  }
  .number {
    font-size: min(40vh, 300px);
    font-weight: 800;
    line-height: 0.95;
  }
  .then {
    font-size: 18px;
    color: ${colour("soft")};
    margin-top: 10px;
  }
  h1 {
    font-size: 40px;
    font-weight: 800;
    line-height: 1.1;
  }
  .setup {
    font-size: 20px;
    color: ${colour("soft")};
    margin-top: 8px;
  }
  @media ${PHONE} {
    &.counting {
      display: grid;
      grid-template-columns: minmax(0, 0.8fr) minmax(0, 1fr);
      grid-template-areas: "number part" "number dots" "number then";
      align-content: center;
      justify-items: start;
      gap: 4px 20px;
      text-align: left;
    }
    .part {
      grid-area: part;
      font-size: 26px;
      align-self: end;
    }
    .number {
      grid-area: number;
      justify-self: center;
      font-size: min(22vh, 190px);
    }
    .dots {
      grid-area: dots;
      justify-content: flex-start;
      margin-top: 6px;
    }
    .then {
      grid-area: then;
    }
  }
`;
const Wide = styled.div`
  grid-column: 1 / -1;
  min-width: 0;
`;
const Foot = styled.div`
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 12px;
  strong {
    font-size: 22px;
    font-weight: 800;
  }
  span {
    font-size: 18px;
    color: ${colour("soft")};
    margin-right: auto;
  }
  @media ${PHONE} {
    gap: 10px;
    > button {
      flex: 1 1 40%;
      justify-content: center;
    }
    > button.start {
      order: -1;
      flex-basis: 100%;
    }
    strong {
      font-size: 18px;
    }
    span {
      font-size: 16px;
    }
  }
  select {
    font: inherit;
    color: inherit;
    background: transparent;
    border: 1.5px solid ${colour("hair")};
    border-radius: 6px;
    min-height: 44px;
    max-width: 220px;
  }
`;
const Dots = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 16px;
  margin-top: 18px;
  i {
    width: 18px;
    height: 18px;
    border-radius: 50%;
    border: 2px solid ${colour("ink")};
  }
  i.gone {
    background: ${colour("ink")};
  }
  i.now {
    background: ${colour("ink")};
    outline: 6px solid ${colour("ink")};
  }
`;

/** Films the student of a chair in the page: count-in, clicks and a large count; it stops by itself, and the next chair comes. */
export function FilmPage() {
  const today = useToday();
  const id = Number(useParams().seat);
  const seat = today.data?.lesson?.seats.find((one) => one.id === id);
  useTitle(seat ? `Film ${firstName(seat.student.name)}` : "Film");
  if (today.isPending) return null;
  if (!seat || !today.data?.lesson)
    return <Message title="This chair is not in today's lesson" text="Go back to Today with H and choose another." />;
  if (seat.student.may_film_until === null)
    return (
      <Message
        quiet
        title={`${firstName(seat.student.name)} is not filmed`}
        text="Press H for Today. What is missing stands on the teacher's own screen."
      />
    );
  if (!seat.check.card)
    return <Message title="There is nothing to count on this chair" text="Press H for Today, and add a clip from the phone instead." />;
  return <Filming key={id} seat={seat} lesson={today.data.lesson} card={seat.check.card} />;
}

function Filming({ seat, lesson, card }: { seat: Seat; lesson: Lesson; card: Card }) {
  const go = useNavigate();
  const uploads = useUploads();
  const camera = useCamera();
  const recording = useRecording(camera.stream, seat, lesson.id, card, (kept) => {
    void uploads.sendKept(kept);
    go("/");
  });
  const run = useRef<RunHandle>(null);
  const moment = useMoment(recording, card, run);
  const { running } = recording;
  const again = () => recording.drop();
  useKeys("Film", [
    {
      key: " ",
      shown: "space",
      does: running ? "stop, and keep what was filmed" : "start: count-in, then film",
      run: running ? recording.stop : recording.start,
    },
    { key: "g", does: "the count was lost: drop this and start again", run: again, off: !running },
    { key: "m", does: "clicks on or off", run: recording.turnSilent },
    { key: "Escape", shown: "Esc", does: "leave it", run: () => (running ? again() : go("/")) },
  ]);
  return (
    <Page>
      <Preview camera={camera} running={running} beat_s={60 / card.tempo_bpm} beats={beatsOf(card)} beat={recording.beat} />
      {moment ? (
        <Counting moment={moment} card={card} />
      ) : (
        <Before seat={seat} trouble={recording.trouble ?? camera.trouble} onRetry={camera.retry} />
      )}
      <Wide>
        <RunLine card={card} handle={run} />
      </Wide>
      <Foot>
        <strong>{seat.student.name}</strong>
        <span>
          {instrumentWords(seat.student.instrument)}, {checkWords(seat.check)}
        </span>
        {!running && camera.cameras.length > 1 && (
          <select
            aria-label="camera"
            onChange={(event) => camera.choose(event.target.value)}
            value={camera.stream?.getVideoTracks()[0]?.getSettings().deviceId}
          >
            {camera.cameras.map((one, i) => (
              <option key={one.deviceId} value={one.deviceId}>
                {one.label || `camera ${i + 1}`}
              </option>
            ))}
          </select>
        )}
        <Action large letter="M" pressed={recording.silent} onPress={recording.turnSilent}>
          Click off
        </Action>
        {running ? (
          <Action large letter="G" onPress={again}>
            Again from the count-in
          </Action>
        ) : (
          <Action large letter="Esc" onPress={() => go("/")}>
            Back to Today
          </Action>
        )}
        <Action
          className="start"
          large
          main
          letter="space"
          isDisabled={!camera.stream}
          onPress={running ? recording.stop : recording.start}
        >
          {running ? "Stop" : "Start"}
        </Action>
      </Foot>
    </Page>
  );
}

/** Where the count stands, drawn anew on each beat; ends the recording when the card is through. */
function useMoment(recording: Recording, card: Card, run: React.RefObject<RunHandle | null>): Moment | null {
  const [moment, setMoment] = useState<Moment | null>(null);
  const latest = useRef(recording);
  useEffect(() => {
    latest.current = recording;
  });
  useEffect(() => {
    if (!recording.running) return;
    const whole = beatsOf(card);
    let asked = 0;
    let shown = NaN;
    const frame = () => {
      const beat = latest.current.beat();
      if (beat !== null) {
        run.current?.show(beat);
        if (Math.floor(beat) !== shown) {
          shown = Math.floor(beat);
          setMoment(momentAt(card, Math.max(beat, 0)));
        }
        if (whole !== null && beat >= whole) return latest.current.stop();
      }
      asked = requestAnimationFrame(frame);
    };
    asked = requestAnimationFrame(frame);
    return () => {
      cancelAnimationFrame(asked);
      setMoment(null);
    };
  }, [recording.running, card, run]);
  return recording.running ? moment : null;
}

function Counting({ moment, card }: { moment: Moment; card: Card }) {
  const { part, number, of, breath, next } = moment;
  return (
    <Count aria-live="off" className="counting">
      <p className="part">{PART_WORDS[part]}</p>
      <p className="number" data-testid="count">
        {part === "done" ? "" : number}
      </p>
      {of !== null && of <= 12 && (
        <Dots aria-hidden className="dots">
          {Array.from({ length: Math.ceil(of) }, (_, i) => (
            <i key={i} className={dotOf(i + 1, number)} />
          ))}
        </Dots>
      )}
      <p className="then">
        {breath >= 0 && `breath ${breath + 1} of ${card.cycles}`}
        {next && `${breath >= 0 ? ", then" : "then"} ${next.part}${next.beats === null ? "" : ` for ${next.beats}`}`}
      </p>
    </Count>
  );
}

function dotOf(beat: number, now: number): string {
  if (beat === now) return "now";
  return beat < now ? "gone" : "";
}

function Before({ seat, trouble, onRetry }: { seat: Seat; trouble: string | null; onRetry: () => void }) {
  return (
    <Count>
      <h1>{firstName(seat.student.name)}</h1>
      <p className="setup">
        {seat.check.position}, {seat.side} side to the camera
      </p>
      <p className="setup">Light-headed? Stop, breathe normally, sit.</p>
      {trouble && (
        <p className="setup" role="alert">
          {trouble}
        </p>
      )}
      {trouble && (
        <Action large onPress={onRetry}>
          Try again
        </Action>
      )}
    </Count>
  );
}

type PreviewProps = { camera: Camera; running: boolean; beat_s: number; beats: number | null; beat: () => number | null };

function Preview({ camera, running, beat_s, beats, beat }: PreviewProps) {
  const video = useRef<HTMLVideoElement>(null);
  const [gone_s, setGone] = useState(0);
  useEffect(() => {
    if (video.current) video.current.srcObject = camera.stream;
  }, [camera.stream]);
  useEffect(() => {
    if (!running) return;
    const ticking = setInterval(() => setGone(Math.max((beat() ?? 0) * beat_s, 0)), 500);
    return () => clearInterval(ticking);
  }, [running, beat, beat_s]);
  return (
    <Picture>
      <video ref={video} autoPlay muted playsInline aria-label="What the camera sees" />
      <Guide viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden>
        {["M22,16 V8 H27", "M73,8 H78 V16", "M22,84 V92 H27", "M73,92 H78 V84"].map((corner) => (
          <path key={corner} d={corner} fill="none" stroke={onClip.light} strokeWidth="3" vectorEffect="non-scaling-stroke" />
        ))}
      </Guide>
      <OnPicture>
        {running
          ? `filming ${gone_s.toFixed(0)} s${beats ? ` of ${(beats * beat_s).toFixed(0)}` : ""}`
          : "head to knees inside the corners"}
      </OnPicture>
    </Picture>
  );
}
