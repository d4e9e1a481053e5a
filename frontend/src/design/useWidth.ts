import { useLayoutEffect, useRef, useState } from "react";

const BEFORE_MEASURED_PX = 1232;

/** The width of an element in px, as it is and as it changes. */
export function useWidth<T extends HTMLElement>() {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(BEFORE_MEASURED_PX);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const measure = () => setWidth(Math.max(Math.round(element.clientWidth), 200));
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(element);
    return () => watcher.disconnect();
  }, []);
  return { ref, width };
}
