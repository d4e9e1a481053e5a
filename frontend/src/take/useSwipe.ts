import { useRef, type TouchEvent } from "react";

const LEAST_PX = 48; // shorter is a tap that slipped
const LEVEL = 1.5; // times as far across as up or down, else the page is scrolled

/** Which way a finger went from one place to another: on to what stands right of it (1), back (-1), or nowhere. */
export function swiped(across_px: number, along_px: number): -1 | 0 | 1 {
  if (Math.abs(across_px) < LEAST_PX || Math.abs(across_px) < LEVEL * Math.abs(along_px)) return 0;
  return across_px < 0 ? 1 : -1;
}

/** A swipe goes to the next or to the one before, as a page is turned; two fingers at once are none. */
export function useSwipe(step: (by: number) => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  return {
    onTouchStart: ({ touches }: TouchEvent) => {
      const only = touches.length === 1 ? touches[0] : undefined;
      from.current = only ? { x: only.clientX, y: only.clientY } : null;
    },
    onTouchEnd: ({ changedTouches }: TouchEvent) => {
      const to = changedTouches[0];
      if (!from.current || !to) return;
      const by = swiped(to.clientX - from.current.x, to.clientY - from.current.y);
      from.current = null;
      if (by) step(by);
    },
    onTouchCancel: () => {
      from.current = null; // the page took it: it is scrolled
    },
  };
}
