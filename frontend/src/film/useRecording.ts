import { useCallback, useEffect, useRef, useState } from "react";

import type { Card, Seat } from "../api/client";
import { Clicker } from "./clicker";
import { beatsOf } from "./counting";
import { letGoPieces, sendPiece } from "../shared/growing";
import { keep, keepPiece, letGo, type Kept, type Once } from "../shared/kept";

const PIECE_MS = 1000;
/** Half of what a phone's own camera writes; with a quarter of it the moments of the exhale moved by up to a tenth of a second. */
const BITS_A_SECOND = 8_000_000;
/** VP8 first: H.264 that a browser codes by itself costs a quarter of the time, and keeps slow movement back; exhales were read 0.1 to 1.3 s early. */
const FORMS = ["video/webm;codecs=vp8,opus", "video/webm", "video/mp4"];
const METRE = 4;
const MOST_BEATS = 128;
const NO_ROOM = "This browser has no room left: the recording is held by this page alone. Go on, and leave the page open until it is sent.";
const SILENT = "brevin-silent";

type Running = { recorder: MediaRecorder; kept: Kept; first_s: number; written: Promise<unknown>; dropped: boolean; again: boolean };

export type Recording = {
  /** Beats since the count-in began; null where nothing runs. */
  beat: () => number | null;
  running: boolean;
  silent: boolean;
  trouble: string | null;
  start: () => void;
  stop: () => void;
  drop: () => void;
  /** Drops it, and begins anew with the count-in at once. */
  again: () => void;
  turnSilent: () => void;
};

/** What is filmed: whose chair in which lesson of which programme, which set of its card, and what is otherwise for this once. */
type Filmed = { seat: Seat; lessonId: number; programme: number | undefined; card: Card; set: number; once: Once };

/** Nothing of a recording whose count was lost stays anywhere. */
const dropped = async (key: string) => void (await Promise.all([letGo(key), letGoPieces(key)]));

/** Films while it counts: clicks and count on the audio clock, every second kept in the browser, and sent to be looked at, as it comes. onDone: called
 * with what was kept. */
export function useRecording(
  stream: MediaStream | null,
  { seat, lessonId, programme, card, set, once }: Filmed,
  onDone: (kept: Kept) => void,
): Recording {
  const [running, setRunning] = useState(false);
  const [silent, setSilent] = useState(() => localStorage.getItem(SILENT) === "yes");
  const [trouble, setTrouble] = useState<string | null>(null);
  const clicker = useRef<Clicker | null>(null);
  const now = useRef<Running | null>(null);
  const done = useRef(onDone);
  useEffect(() => {
    done.current = onDone;
  });
  const anew = useRef(() => {});
  const end = useCallback((drop: boolean, again = false) => {
    const one = now.current;
    if (!one) return;
    one.dropped = one.dropped || drop;
    one.again = again;
    clicker.current?.stop();
    if (one.recorder.state !== "inactive") one.recorder.stop();
  }, []);
  const start = useCallback(() => {
    if (!stream || now.current) return;
    setTrouble(null);
    clicker.current ??= new Clicker(localStorage.getItem(SILENT) === "yes");
    const clicks = clicker.current;
    void clicks.context.resume();
    const type = FORMS.find((form) => MediaRecorder.isTypeSupported(form)) ?? "";
    const recorder = new MediaRecorder(stream, { mimeType: type, videoBitsPerSecond: BITS_A_SECOND });
    const beat_s = 60 / card.tempo_bpm;
    const kept: Kept = {
      key: crypto.randomUUID(),
      seat,
      lessonId,
      first_inhale_s: 0,
      type,
      made_at: new Date().toISOString(),
      set,
      ...once,
      programme,
    };
    const one: Running = { recorder, kept, first_s: Infinity, written: Promise.resolve(), dropped: false, again: false };
    now.current = one;
    let pieces = 0;
    const noRoom = () => setTrouble(NO_ROOM);
    recorder.ondataavailable = ({ data }) => {
      if (!data.size) return;
      const number = pieces++;
      sendPiece(kept, data);
      one.written = one.written.then(async () => {
        if (!(await keepPiece(kept.key, number, data))) noRoom();
      });
    };
    recorder.onstart = () => {
      const began_s = clicks.now_s;
      const beats = beatsOf(card);
      one.first_s = clicks.start(beat_s, Math.ceil(beats ?? MOST_BEATS), METRE);
      if (beats !== null) clicks.at(one.first_s + beats * beat_s, () => end(false));
      one.kept = { ...kept, first_inhale_s: one.first_s - began_s + card.countin_beats * beat_s };
      one.written = one.written.then(() => keep(one.kept)).catch(noRoom);
    };
    recorder.onstop = () => {
      now.current = null;
      if (one.again) anew.current();
      void one.written.catch(noRoom).then(() => {
        if (!now.current) setRunning(false); // not before it is known what comes: in between the page would be free for another chair, and for Start
        if (one.dropped) void dropped(kept.key);
        else done.current(one.kept);
      });
    };
    recorder.start(PIECE_MS);
    setRunning(true);
  }, [stream, seat, lessonId, programme, card, set, once, end]);
  useEffect(() => {
    anew.current = start;
  });
  useEffect(
    () => () => {
      end(false); // who leaves the page loses nothing
      clicker.current?.close();
      clicker.current = null;
    },
    [end],
  );
  const beat = useCallback(() => {
    const [one, clicks] = [now.current, clicker.current];
    return one && clicks ? Math.max((clicks.now_s - one.first_s) / (60 / card.tempo_bpm), -1) : null;
  }, [card]);
  const turnSilent = () => {
    localStorage.setItem(SILENT, silent ? "no" : "yes");
    if (clicker.current) clicker.current.silent = !silent;
    setSilent(!silent);
  };
  const stop = useCallback(() => end(false), [end]);
  return { beat, running, silent, trouble, start, stop, drop: () => end(true), again: () => end(true, true), turnSilent };
}
