import { useEffect, useRef, useState } from "react";

const LASTS_S = 3;
const LOUD = 0.12; // gentle: it is heard beside a class
const HARMONICS = [0, 1, 0.5, 0.28, 0.14, 0.07];

/** A reference tone: on for a few seconds, or until it is pressed again. */
export function useTone() {
  const playing = useRef<{ context: AudioContext; tone: OscillatorNode } | null>(null);
  const [hz, setHz] = useState<number | null>(null);
  const stop = () => {
    void playing.current?.context.close();
    playing.current = null;
    setHz(null);
  };
  const play = (wanted: number) => {
    stop();
    const context = new AudioContext();
    const tone = context.createOscillator();
    const loud = context.createGain();
    tone.setPeriodicWave(context.createPeriodicWave(new Float32Array(HARMONICS), new Float32Array(HARMONICS.length)));
    tone.frequency.value = wanted;
    loud.gain.setValueAtTime(0, context.currentTime);
    loud.gain.linearRampToValueAtTime(LOUD, context.currentTime + 0.05);
    loud.gain.setValueAtTime(LOUD, context.currentTime + LASTS_S - 0.1);
    loud.gain.linearRampToValueAtTime(0, context.currentTime + LASTS_S);
    tone.connect(loud).connect(context.destination);
    tone.start();
    tone.stop(context.currentTime + LASTS_S);
    tone.onended = () => playing.current?.tone === tone && stop();
    playing.current = { context, tone };
    setHz(wanted);
  };
  useEffect(() => () => void playing.current?.context.close(), []);
  return { hz, turn: (wanted: number) => (playing.current ? stop() : play(wanted)) };
}
