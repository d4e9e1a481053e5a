import { useCallback, useEffect, useState } from "react";

import { useAwake } from "../shared/useAwake";

export type Camera = {
  stream: MediaStream | null;
  trouble: string | null;
  /** The camera was there and is not any more. */
  gone: boolean;
  cameras: MediaDeviceInfo[];
  retry: () => void;
  choose: (id: string) => void;
};

const CHOSEN = "brevin-camera";
const WANTED = { width: { ideal: 1280 }, height: { ideal: 720 }, frameRate: { ideal: 30 } };
const AS_IT_SOUNDS = { echoCancellation: false, noiseSuppression: false, autoGainControl: false }; // clicks and air are no noise here
const TROUBLE: Record<string, string> = {
  NotAllowedError: "The browser was told not to use the camera. Allow it beside the page's address, then try again.",
  NotFoundError: "No camera was found. Plug one in, then try again.",
  NotReadableError: "Another program is using the camera. Close it there, then try again.",
  OverconstrainedError: "The camera that was chosen last time is not here. Try again with another.",
};
const NO_SOUND: Record<string, string> = {
  NotAllowedError: "The browser was told not to use the microphone. Allow it beside the page's address, then try again.",
  NotFoundError: "No microphone was found. Plug one in, then try again.",
  NotReadableError: "Another program is using the microphone. Close it there, then try again.",
};
const GONE = "The camera is gone. Plug it in again, then try again. What was filmed until then is kept and sent.";
const INSECURE = "A camera works on this computer only, or over https: start Brevin with --lan and open the address it prints.";

/** Camera and microphone, the ones chosen last time. Sound may be missing: then the app's own count is all there is. soundOnly: the microphone alone, no
 * camera is opened. */
export function useCamera(soundOnly = false): Camera {
  const [stream, setStream] = useState<MediaStream | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [cameras, setCameras] = useState<MediaDeviceInfo[]>([]);
  const [asked, setAsked] = useState(0);
  useAwake(stream !== null && !soundOnly);
  useEffect(() => {
    let open: MediaStream | null = null;
    let left = false;
    const close = () => open?.getTracks().forEach((track) => track.stop());
    const ask = async () => {
      setTrouble(null);
      if (!navigator.mediaDevices) return setTrouble(INSECURE);
      try {
        open = await (soundOnly ? navigator.mediaDevices.getUserMedia({ audio: AS_IT_SOUNDS }) : withSound());
        if (left) return close();
        open.getVideoTracks()[0]?.addEventListener("ended", () => setTrouble(GONE));
        setStream(open);
        setCameras((await navigator.mediaDevices.enumerateDevices()).filter(({ kind }) => kind === "videoinput"));
      } catch (error) {
        if ((error as Error).name === "OverconstrainedError") localStorage.removeItem(CHOSEN);
        setTrouble(
          (soundOnly ? NO_SOUND : TROUBLE)[(error as Error).name] ??
            `The ${soundOnly ? "microphone" : "camera"} does not start (${(error as Error).name}). Try again.`,
        );
      }
    };
    void ask();
    return () => {
      left = true;
      close();
      setStream(null);
    };
  }, [asked, soundOnly]);
  const retry = useCallback(() => setAsked((n) => n + 1), []);
  const choose = useCallback(
    (id: string) => {
      localStorage.setItem(CHOSEN, id);
      retry();
    },
    [retry],
  );
  return { stream, trouble, gone: trouble === GONE, cameras, retry, choose };
}

async function withSound(): Promise<MediaStream> {
  const id = localStorage.getItem(CHOSEN);
  const video = id ? { ...WANTED, deviceId: { exact: id } } : WANTED;
  try {
    return await navigator.mediaDevices.getUserMedia({ video, audio: AS_IT_SOUNDS });
  } catch (error) {
    if ((error as Error).name !== "NotFoundError") throw error;
    return navigator.mediaDevices.getUserMedia({ video }); // no microphone: better a clip without sound than none
  }
}
