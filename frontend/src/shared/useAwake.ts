import { useEffect } from "react";

/** Keeps the screen from going dark, as a phone's on its stand does in the middle of a lesson; where the browser cannot, nothing happens. */
export function useAwake(wanted: boolean) {
  useEffect(() => {
    if (!wanted || !("wakeLock" in navigator)) return;
    let left = false;
    let held: WakeLockSentinel | null = null;
    const ask = async () => {
      if (left || document.visibilityState !== "visible") return;
      try {
        held = await navigator.wakeLock.request("screen");
        if (left) await held.release();
      } catch {
        return; // a phone that saves its battery says no
      }
    };
    void ask();
    document.addEventListener("visibilitychange", ask); // a page that was behind another one has lost it
    return () => {
      left = true;
      document.removeEventListener("visibilitychange", ask);
      void held?.release();
    };
  }, [wanted]);
}
