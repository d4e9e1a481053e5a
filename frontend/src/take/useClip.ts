import { useCallback, useEffect, useRef, useState } from "react";

type Loop = { from: number; to: number } | null;
const SLOW = 0.5;
const MOVES = ["loadedmetadata", "play", "pause", "seeking", "seeked", "timeupdate", "ended"] as const; // after which its time may be another

/** A video that tells its time at every picture, can be sought, slowed, and may loop over one stretch. */
export function useClip(onTime: (t_s: number) => void) {
  const video = useRef<HTMLVideoElement>(null);
  const loop = useRef<Loop>(null);
  const tell = useRef(onTime);
  const [playing, setPlaying] = useState(false);
  const [slow, setSlow] = useState(false);
  useEffect(() => {
    tell.current = onTime;
    if (video.current?.readyState) onTime(video.current.currentTime); // judged anew, the same moment may be another count
  }, [onTime]);
  useEffect(() => {
    let asked = 0;
    let last = -1;
    const frame = () => {
      const element = video.current;
      if (!element) return;
      setPlaying(!element.paused); // the same value again draws nothing
      const stretch = loop.current;
      if (stretch && !element.paused && element.currentTime > stretch.to) element.currentTime = stretch.from;
      if (element.currentTime !== last) {
        last = element.currentTime;
        tell.current(last);
      }
      if (!element.paused) asked = requestAnimationFrame(frame);
    };
    const heard = (event: Event) => {
      if (event.target !== video.current) return;
      cancelAnimationFrame(asked);
      asked = requestAnimationFrame(frame);
    };
    for (const kind of MOVES) document.addEventListener(kind, heard, true); // on its way down: a video's events do not bubble
    return () => {
      cancelAnimationFrame(asked);
      for (const kind of MOVES) document.removeEventListener(kind, heard, true);
    };
  }, []);
  const seek = useCallback((t_s: number) => {
    if (video.current) video.current.currentTime = t_s;
    else tell.current(t_s); // the clip is gone: what was seen at that moment stays
  }, []);
  const turn = useCallback(() => {
    const element = video.current;
    if (!element) return;
    if (element.paused) void element.play();
    else element.pause();
  }, []);
  const play = useCallback(() => void video.current?.play(), []);
  const stop = useCallback(() => video.current?.pause(), []);
  const turnSlow = useCallback(() => {
    setSlow((was) => {
      if (video.current) video.current.playbackRate = was ? 1 : SLOW;
      return !was;
    });
  }, []);
  const setLoop = useCallback((stretch: Loop) => {
    loop.current = stretch;
  }, []);
  return { video, playing, slow, seek, play, stop, turn, turnSlow, setLoop };
}
