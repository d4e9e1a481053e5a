import { useEffect, useState, type RefObject } from "react";

import { body, client, type ReadyLine } from "../api/client";
import { pictureOf } from "../shared/picture";

const EVERY_MS = { before: 400, filming: 1500 };
const LATE_MS = 4000; // without an answer, and the lines say that they are not sure

export type Readiness = { lines: ReadyLine[]; late: boolean };

/** What the reading would say of the camera's picture now; the picture is sent, answered and forgotten. It never holds up filming. */
export function useReadiness(
  video: RefObject<HTMLVideoElement | null>,
  stream: MediaStream | null,
  wanted: ReadyWanted,
  filming: boolean,
): Readiness {
  const [found, setFound] = useState<Readiness>({ lines: [], late: false });
  useEffect(() => {
    if (!stream) return;
    const camera = crypto.randomUUID();
    const canvas = document.createElement("canvas");
    let [left, waiting] = [false, 0];
    let answered = performance.now();
    const look = async () => {
      const asked = performance.now();
      try {
        const picture = await pictureOf(video.current, canvas);
        if (picture) {
          const lines = await ask(camera, wanted, picture);
          answered = performance.now();
          if (!left) setFound({ lines, late: false });
        }
      } catch {
        if (!left && performance.now() - answered > LATE_MS) setFound((known) => ({ ...known, late: true }));
      }
      const rest = Math.max(EVERY_MS[filming ? "filming" : "before"] - (performance.now() - asked), 50);
      if (!left) waiting = window.setTimeout(() => void look(), rest);
    };
    void look();
    return () => {
      left = true;
      clearTimeout(waiting);
    };
  }, [video, stream, wanted, filming]);
  return found;
}

export type ReadyWanted = "side-left" | "side-right" | "front";

async function ask(camera: string, wanted: ReadyWanted, picture: Blob): Promise<ReadyLine[]> {
  return body(
    await client.POST("/api/live/ready", {
      params: { query: { camera, wanted, t_s: performance.now() / 1000 } },
      body: picture as never,
      bodySerializer: (content) => content,
      headers: { "Content-Type": "image/jpeg" },
      signal: AbortSignal.timeout(LATE_MS),
    }),
  ).lines;
}
