import { useEffect, useRef, useState } from "react";
import styled from "styled-components";

import { useHideShown, useShow } from "../api/cards";
import { Action } from "../design/Action";
import { Said } from "../design/Fields";
import { onClip } from "../design/tokens";
import { useCamera } from "../film/useCamera";
import { Panel } from "./Panel";

const Mine = styled(Panel)`
  display: grid;
  gap: 8px;
  video {
    width: 320px;
    max-width: 100%;
    background: ${onClip.dark};
    border-radius: 6px;
  }
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
  }
`;
const LONGEST_MS = 60_000;

/** Me, then you: the teacher's own demonstration of a card, filmed or spoken here or chosen as a file; it is played before the count-in. */
export function Demonstration({ cardId, shown }: { cardId: number; shown: string }) {
  const show = useShow(cardId);
  const hide = useHideShown(cardId);
  const chooser = useRef<HTMLInputElement>(null);
  const [making, setMaking] = useState<Making | null>(null);
  const send = (file: File | undefined) => file && show.mutate(file);
  const made = (file: File) => {
    setMaking(null);
    send(file);
  };
  return (
    <Mine aria-label="Your demonstration" className="desk">
      <h2>
        Me, then you <span>your own demonstration, played before the count-in; you alone in it, no child</span>
      </h2>
      {making ? (
        <Record key={making} what={making} onMade={made} onNone={() => setMaking(null)} />
      ) : (
        <>
          {shown && <video src={`${shown}#t=0.5`} controls playsInline aria-label="Your demonstration" />}
          <p>
            <Action onPress={() => setMaking("clip")}>Film it here</Action>
            <Action onPress={() => setMaking("sound")}>Only the sound</Action>
            <Action onPress={() => chooser.current?.click()}>Choose a file</Action>
            {shown && <Action onPress={() => hide.mutate()}>Take it away</Action>}
          </p>
        </>
      )}
      {show.isPending && <p role="status">One moment: it is being taken in.</p>}
      {(show.error ?? hide.error) && <Said role="alert">{(show.error ?? hide.error)!.message}</Said>}
      <input
        ref={chooser}
        type="file"
        accept="video/*,audio/*"
        hidden
        aria-hidden
        tabIndex={-1}
        onChange={(event) => {
          send(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
    </Mine>
  );
}

type Making = "clip" | "sound";
type RecordProps = { what: Making; onMade: (file: File) => void; onNone: () => void };

/** This computer's camera, as a mirror, or its microphone alone, and a button that records. */
function Record({ what, onMade, onNone }: RecordProps) {
  const camera = useCamera(what === "sound");
  const video = useRef<HTMLVideoElement>(null);
  const [recorder, setRecorder] = useState<MediaRecorder | null>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = camera.stream;
  }, [camera.stream]);
  useEffect(() => {
    if (!recorder) return;
    const ending = setTimeout(() => recorder.stop(), LONGEST_MS);
    return () => clearTimeout(ending);
  }, [recorder]);
  const start = () => {
    if (!camera.stream) return;
    const pieces: Blob[] = [];
    const made = new MediaRecorder(camera.stream);
    made.ondataavailable = ({ data }) => pieces.push(data);
    made.onstop = () => onMade(new File(pieces, made.mimeType.includes("mp4") ? "me.mp4" : "me.webm", { type: made.mimeType }));
    made.start();
    setRecorder(made);
  };
  return (
    <>
      {what === "clip" && <video ref={video} autoPlay muted playsInline aria-label="Yourself" />}
      {what === "sound" && (
        <p role="status">{recorder ? "Listening: play or breathe it now." : "The microphone only; no picture is taken."}</p>
      )}
      {camera.trouble && <Said role="alert">{camera.trouble}</Said>}
      <p>
        {recorder ? (
          <Action main onPress={() => recorder.stop()}>
            Stop, and keep it
          </Action>
        ) : (
          <Action main isDisabled={!camera.stream} onPress={start}>
            {what === "clip" ? "Start filming" : "Start recording"}
          </Action>
        )}
        {!recorder && <Action onPress={onNone}>Not now</Action>}
      </p>
    </>
  );
}
