import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";

import type { Card } from "../api/client";
import { useCards } from "../api/cards";
import { useNoteCounted, useToday } from "../api/queries";
import { breathCardOf } from "../breathscore/layout";
import { Action } from "../design/Action";
import { useKeys } from "../design/keys";
import { useTitle } from "../design/title";
import { colour, onClip } from "../design/tokens";
import { useCamera } from "../film/useCamera";
import { useRest } from "../film/useRest";
import { CountNow } from "./CountNow";
import { FaceStage } from "./FaceStage";
import { Stage } from "./Stage";
import { useCount } from "./useCount";
import { askFace, askLanes, useMirror } from "./useMirror";

const Page = styled.main`
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: 16px;
  height: 100dvh;
  padding: 24px;
`;
const Whole = styled.div`
  position: relative;
  min-height: 0;
`;
const Picture = styled.div<{ $face: boolean }>`
  position: absolute;
  right: ${({ $face }) => ($face ? "36%" : 0)};
  top: 0;
  width: ${({ $face }) => ($face ? "64%" : "36%")};
  height: 100%;
  overflow: hidden;
  border-radius: 6px;
  background: ${onClip.dark};
  video {
    width: 100%;
    height: 100%;
    object-fit: cover;
    transform: scaleX(-1);
    transform-origin: ${({ $face }) => ($face ? "0 0" : "50% 50%")};
  }
`;
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  p {
    font-size: 18px;
    color: ${colour("soft")};
    margin-right: auto;
    b {
      color: ${colour("ink")};
    }
  }
`;
const USUAL: Card = { inhale_beats: 3, pause_beats: 0, exhale_beats: 4, empty_beats: 0, tempo_bpm: 72, cycles: 3, countin_beats: 4 };
const SLOWER = 0.9;
const REST_S = 30;

/** See oneself breathe: lanes beside the picture, time running into the body; nothing is stored, nobody is named, nothing is judged. */
export function MirrorPage() {
  const go = useNavigate();
  const today = useToday();
  const cards = useCards();
  const camera = useCamera();
  const video = useRef<HTMLVideoElement>(null);
  const [face, setFace] = useState(false);
  const mirrored = useMirror(video, face ? null : camera.stream, askLanes);
  const mirroredFace = useMirror(video, face ? camera.stream : null, askFace);
  const [silent, setSilent] = useState(false);
  const [slower, setSlower] = useState(1);
  const [restUntil_ms, setRest] = useState(0);
  useTitle("Mirror");
  useEffect(() => {
    if (video.current) video.current.srcObject = camera.stream;
  }, [camera.stream]);
  const lesson = today.data?.lesson;
  const seat = lesson?.seats.find(({ id }) => id === lesson.seat_now?.seat_id);
  const plain = (seat && breathCardOf(seat.check)) ?? cards.data?.cards[0]?.check.card ?? USUAL;
  const [card, setCard] = useState<Card | null>(null);
  const counted = card ?? { ...plain, tempo_bpm: Math.round(plain.tempo_bpm * slower) };
  const noteCounted = useNoteCounted();
  const rest_s = useRest(Math.max(restUntil_ms, seat?.rest_s ? today.dataUpdatedAt + 1000 * seat.rest_s : 0));
  const count = useCount(counted, silent, (breaths, lasted_s, through) => {
    if (through) setRest(Date.now() + 1000 * REST_S);
    if (seat && breaths > 0) noteCounted.mutate({ seatId: seat.id, breaths, lasted_s });
  });
  const turn = () => {
    if (face || (!count.running && rest_s > 0)) return;
    setCard(count.running ? null : counted);
    count.turn();
  };
  const goSlower = () => setSlower((now) => Math.max(now * SLOWER, 0.5));
  useKeys("Mirror", [
    { key: " ", shown: "space", does: "count, or stop counting", run: turn },
    { key: "m", does: "clicks on or off", run: () => setSilent(!silent) },
    { key: "s", does: "slower", run: goSlower, off: count.running },
    { key: "f", does: "the face, or the breath", run: () => setFace(!face), off: count.running },
    { key: "Escape", shown: "Esc", does: "close", run: () => go("/") },
  ]);
  const { shown } = mirrored;
  const looked = face ? mirroredFace.shown : shown;
  const wait = waitWords(camera.trouble, looked?.state === "seen", looked?.title ?? "", looked?.do ?? "", rest_s);
  return (
    <Page>
      <h1 className="unseen">Mirror</h1>
      <Whole>
        <Picture $face={face}>
          <video ref={video} autoPlay muted playsInline aria-label="Yourself, as in a mirror" />
        </Picture>
        {face ? (
          <FaceStage video={video} shown={mirroredFace.shown} instrument={seat?.student.instrument ?? "none"} wait={wait} />
        ) : (
          <>
            <Stage video={video} shown={shown} card={counted} began_ms={count.began_ms} />
            <CountNow moment={count.moment} cycles={counted.cycles} wait={wait} />
          </>
        )}
      </Whole>
      <Foot>
        <p data-testid="behind" data-behind={(face ? mirroredFace : mirrored).behind_s.toFixed(3)}>
          <b>Nothing is stored.</b> Light-headed? Stop, breathe normally, sit.
        </p>
        {camera.trouble && (
          <Action large onPress={camera.retry}>
            Try again
          </Action>
        )}
        <Action large letter="F" pressed={face} isDisabled={count.running} onPress={() => setFace(!face)}>
          Face
        </Action>
        <Action large letter="M" pressed={silent} onPress={() => setSilent(!silent)}>
          Click off
        </Action>
        <Action large letter="S" isDisabled={count.running} onPress={goSlower}>
          Slower
        </Action>
        <Action large letter="space" isDisabled={face || (!count.running && rest_s > 0)} onPress={turn}>
          {countWords(count.running, rest_s)}
        </Action>
        <Action large main letter="Esc" onPress={() => go("/")}>
          Close
        </Action>
      </Foot>
    </Page>
  );
}

function countWords(running: boolean, rest_s: number): string {
  if (running) return "Stop";
  return rest_s > 0 ? `Rest ${rest_s} s` : "Count";
}

function waitWords(trouble: string | null, seen: boolean, title: string, doing: string, rest_s: number): string {
  if (trouble) return trouble;
  if (rest_s > 0) return "Breathe as usual for a while.";
  if (seen) return "Breathe, and watch where it moves.";
  return title ? `${title}: ${doing}` : "One moment";
}
