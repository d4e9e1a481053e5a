import { useCallback, useEffect, useRef } from "react";

type Loop = { from: number; to: number } | null;

/** A video that tells its time at every picture, can be sought, and may loop over one stretch. */
export function useClip(onTime: (t_s: number) => void) {
  const video = useRef<HTMLVideoElement>(null);
  const loop = useRef<Loop>(null);
  const tell = useRef(onTime);
  useEffect(() => {
    tell.current = onTime;
  });
  useEffect(() => {
    let asked = 0;
    let last = -1;
    const frame = () => {
      const element = video.current;
      if (element) {
        const stretch = loop.current;
        if (stretch && !element.paused && element.currentTime > stretch.to) element.currentTime = stretch.from;
        if (element.currentTime !== last) {
          last = element.currentTime;
          tell.current(last);
        }
      }
      asked = requestAnimationFrame(frame);
    };
    asked = requestAnimationFrame(frame);
    return () => cancelAnimationFrame(asked);
  }, []);
  const seek = useCallback((t_s: number) => {
    if (video.current) video.current.currentTime = t_s;
  }, []);
  const turn = useCallback(() => {
    const element = video.current;
    if (!element) return;
    if (element.paused) void element.play();
    else element.pause();
  }, []);
  const setLoop = useCallback((stretch: Loop) => {
    loop.current = stretch;
  }, []);
  return { video, seek, turn, setLoop };
}
