import { useCallback, useState } from "react";

const BEFORE_MEASURED = { width: 1232, height: 600 };
const LEAST_PX = 200;

/** Width and height of an element in px, as they are and as they change, whenever it comes onto the page. */
export function useSize<T extends HTMLElement>() {
  const [size, setSize] = useState(BEFORE_MEASURED);
  const ref = useCallback((element: T) => {
    const measure = () => setSize({ width: Math.max(Math.round(element.clientWidth), LEAST_PX), height: Math.round(element.clientHeight) });
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(element);
    return () => watcher.disconnect();
  }, []);
  return { ref, ...size };
}
