import { useLayoutEffect, useRef, useState } from "react";

const BEFORE_MEASURED = { width: 1232, height: 600 };
const LEAST_PX = 200;

/** Width and height of an element in px, as they are and as they change. */
export function useSize<T extends HTMLElement>() {
  const ref = useRef<T>(null);
  const [size, setSize] = useState(BEFORE_MEASURED);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const measure = () => setSize({ width: Math.max(Math.round(element.clientWidth), LEAST_PX), height: Math.round(element.clientHeight) });
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(element);
    return () => watcher.disconnect();
  }, []);
  return { ref, ...size };
}
