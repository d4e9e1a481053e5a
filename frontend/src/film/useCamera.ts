import { useCallback, useEffect, useState } from "react";

import { useAwake } from "../shared/useAwake";

export type Camera = {
  stream: MediaStream | null;
  trouble: string | null;
  /** The camera was there and is not any more. */
  gone: boolean;
  devices: Record<Device, MediaDeviceInfo[]>;
  retry: () => void;
  choose: (device: Device, id: string) => void;
};
export type Device = "camera" | "microphone";

const CHOSEN: Record<Device, string> = { camera: "brevin-camera", microphone: "brevin-microphone" };
const NONE: Record<Device, MediaDeviceInfo[]> = { camera: [], microphone: [] };
const SAME_AGAIN = new Set(["default", "communications"]); // a browser lists the usual microphone once more by what it is used for
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

/** Camera and microphone, the ones chosen last time; where that microphone is not here, any. Sound may be missing: then the app's own count is all
 * there is. soundOnly: the microphone alone, no camera is opened. */
export function useCamera(soundOnly = false): Camera {
  const [stream, setStream] = useState<MediaStream | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [devices, setDevices] = useState(NONE);
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
        open = await opened(soundOnly);
        if (left) return close();
        open.getVideoTracks()[0]?.addEventListener("ended", () => setTrouble(GONE));
        setStream(open);
        const found = await navigator.mediaDevices.enumerateDevices();
        setDevices({
          camera: found.filter(({ kind }) => kind === "videoinput"),
          microphone: found.filter(({ kind, deviceId }) => kind === "audioinput" && !SAME_AGAIN.has(deviceId)),
        });
      } catch (error) {
        if ((error as Error).name === "OverconstrainedError") localStorage.removeItem(CHOSEN.camera);
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
    (device: Device, id: string) => {
      localStorage.setItem(CHOSEN[device], id);
      retry();
    },
    [retry],
  );
  return { stream, trouble, gone: trouble === GONE, devices, retry, choose };
}

async function opened(soundOnly: boolean): Promise<MediaStream> {
  const [video, audio] = [wanted("camera", WANTED), wanted("microphone", AS_IT_SOUNDS)];
  try {
    return await navigator.mediaDevices.getUserMedia(soundOnly ? { audio } : { video, audio });
  } catch (error) {
    const { name } = error as Error;
    if (name === "OverconstrainedError" && localStorage.getItem(CHOSEN.microphone)) {
      localStorage.removeItem(CHOSEN.microphone); // it may be the one that is not here, and any other hears the clicks
      return opened(soundOnly);
    }
    if (name !== "NotFoundError" || soundOnly) throw error;
    return navigator.mediaDevices.getUserMedia({ video }); // no microphone: better a clip without sound than none
  }
}

function wanted(device: Device, usual: MediaTrackConstraints): MediaTrackConstraints {
  const id = localStorage.getItem(CHOSEN[device]);
  return id ? { ...usual, deviceId: { exact: id } } : usual;
}
