import { useEffect, useRef, useState } from "react";

import { csrfHeader, type Heard } from "../api/client";
import { asBytes, Tries } from "./sound";
import worklet from "./listen.worklet.js?url&no-inline";

/** The microphone beside the first notes: what it heard last, as a suggestion. Nothing is kept, here or there. */
export function useListen(wanted_hz: number | null) {
  const [on, setOn] = useState(false);
  const [heard, setHeard] = useState<Heard | null>(null);
  const [trouble, setTrouble] = useState("");
  const wanted = useRef(wanted_hz);
  useEffect(() => {
    wanted.current = wanted_hz;
  }, [wanted_hz]);
  useEffect(() => {
    if (!on) return;
    let over = false;
    const context = new AudioContext();
    let stream: MediaStream | null = null;
    const open = async () => {
      stream = await navigator.mediaDevices.getUserMedia({
        audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
      });
      await context.audioWorklet.addModule(worklet);
      if (over) return stream.getTracks().forEach((one) => one.stop());
      const tries = new Tries(
        context.sampleRate,
        (samples) => void ask(samples, context.sampleRate, wanted.current).then(setHeard, () => undefined),
      );
      const node = new AudioWorkletNode(context, "listen");
      node.port.onmessage = ({ data }) => tries.hear(data as Float32Array);
      context.createMediaStreamSource(stream).connect(node);
    };
    open().catch(() => {
      setTrouble("The microphone cannot be used here. Allow it in the browser, or tap what came out.");
      setOn(false);
    });
    return () => {
      over = true;
      stream?.getTracks().forEach((one) => one.stop());
      void context.close();
    };
  }, [on]);
  const turn = () => {
    setTrouble("");
    setHeard(null);
    setOn(!on);
  };
  return { on, heard, trouble, turn, forget: () => setHeard(null) };
}

async function ask(samples: Float32Array, rate_hz: number, wanted_hz: number | null): Promise<Heard> {
  const query = new URLSearchParams({ rate_hz: String(rate_hz), ...(wanted_hz ? { wanted_hz: String(wanted_hz) } : {}) });
  const answer = await fetch(`/api/bench/firsts/heard?${query}`, {
    method: "POST",
    headers: { ...csrfHeader(), "Content-Type": "application/octet-stream" },
    body: asBytes(samples),
  });
  if (!answer.ok) throw new Error("not heard");
  return (await answer.json()) as Heard;
}
