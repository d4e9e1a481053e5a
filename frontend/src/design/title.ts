import { useEffect } from "react";

/** What the browser's tab and a screen reader call the page. */
export function useTitle(words: string) {
  useEffect(() => {
    document.title = `${words} · Brevin`;
  }, [words]);
}
