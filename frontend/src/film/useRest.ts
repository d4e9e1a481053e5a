import { useEffect, useState } from "react";

/** Whole seconds left until a moment, ticking; nought once it is past. until_ms: on the page's own clock. */
export function useRest(until_ms: number): number {
  const [now_ms, setNow] = useState(() => Date.now());
  const left_s = Math.max(Math.ceil((until_ms - now_ms) / 1000), 0);
  useEffect(() => {
    if (left_s === 0) return;
    const tick = () => setNow(Date.now());
    const first = setTimeout(tick, 0); // the time that is known may be as old as the page
    const ticking = setInterval(tick, 250);
    return () => {
      clearTimeout(first);
      clearInterval(ticking);
    };
  }, [left_s]);
  return left_s;
}
