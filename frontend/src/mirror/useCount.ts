import { useCallback, useEffect, useRef, useState } from "react";

import type { Card } from "../api/client";
import { Clicker } from "../film/clicker";
import { beatsOf, momentAt, sameMoment, type Moment } from "../film/counting";

const METRE = 4;
const OPEN_BEATS = 64;

/** began_ms: when the count-in began, on the page's clock; null where nothing is counted. */
export type Count = { moment: Moment | null; began_ms: number | null; running: boolean; turn: () => void };

/** Counts a card aloud, again and again on demand; nothing is recorded. onEnd: called when it is through or stopped, with the breaths that were begun. */
export function useCount(card: Card, silent: boolean, onEnd: (breaths: number, lasted_s: number, through: boolean) => void): Count {
  const clicker = useRef<Clicker | null>(null);
  const [began_ms, setBegan] = useState<number | null>(null);
  const [moment, setMoment] = useState<Moment | null>(null);
  const ended = useRef(onEnd);
  useEffect(() => {
    ended.current = onEnd;
    if (clicker.current) clicker.current.silent = silent;
  });
  const stop = useCallback(() => {
    clicker.current?.stop();
    setBegan(null);
    setMoment(null);
  }, []);
  useEffect(
    () => () => {
      clicker.current?.close();
      clicker.current = null;
    },
    [],
  );
  useEffect(() => {
    if (began_ms === null) return;
    const beat_ms = 60_000 / card.tempo_bpm;
    const whole = beatsOf(card) ?? OPEN_BEATS;
    const ticking = setInterval(() => {
      const beat = (performance.now() - began_ms) / beat_ms;
      const now = momentAt(card, Math.max(beat, 0));
      if (beat < whole) return setMoment((shown) => (shown && sameMoment(shown, now) ? shown : now)); // unless it has changed nothing is drawn
      stop();
      ended.current(card.cycles, (whole * beat_ms) / 1000, true);
    }, 40);
    return () => clearInterval(ticking);
  }, [began_ms, card, stop]);
  const turn = () => {
    if (began_ms !== null) {
      stop();
      ended.current((moment?.breath ?? -1) + 1, Math.max(performance.now() - began_ms, 0) / 1000, false);
      return;
    }
    clicker.current ??= new Clicker(silent);
    const clicks = clicker.current;
    void clicks.context.resume();
    const first_s = clicks.start(60 / card.tempo_bpm, Math.ceil(beatsOf(card) ?? OPEN_BEATS), METRE);
    setBegan(performance.now() + 1000 * (first_s - clicks.now_s));
  };
  return { moment, began_ms, running: began_ms !== null, turn };
}
