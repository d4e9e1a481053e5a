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
  { wanted, held }: Asked,
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
          const lines = await ask(camera, { wanted, held }, picture);
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
  }, [video, stream, wanted, held, filming]);
  return found;
}

/** From where the check is filmed, and whether it asks for a breath with the instrument. */
export type Asked = { wanted: "side-left" | "side-right" | "front"; held: boolean };

async function ask(camera: string, asked: Asked, picture: Blob): Promise<ReadyLine[]> {
  return body(
    await client.POST("/api/live/ready", {
      params: { query: { camera, ...asked, t_s: performance.now() / 1000 } },
      body: picture as never,
      bodySerializer: (content) => content,
      headers: { "Content-Type": "image/jpeg" },
      signal: AbortSignal.timeout(LATE_MS),
    }),
  ).lines;
}
