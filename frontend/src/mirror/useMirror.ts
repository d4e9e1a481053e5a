import { useEffect, useState, type RefObject } from "react";

import { body, client, type MirrorOut } from "../api/client";
import { pictureOf } from "../shared/picture";

const LEAST_MS = 70; // between two pictures: no more than fourteen a second
const AFTER_TROUBLE_MS = 400;

/** What the mirror shows: the lanes of the last seconds on the page's own clock, and how far behind they are. */
export type Mirrored = { shown: MirrorOut | null; behind_s: number };

/** Sends the camera's pictures one after another; each is answered and forgotten. */
export function useMirror(video: RefObject<HTMLVideoElement | null>, stream: MediaStream | null): Mirrored {
  const [found, setFound] = useState<Mirrored>({ shown: null, behind_s: 0 });
  useEffect(() => {
    if (!stream) return;
    const camera = crypto.randomUUID();
    const canvas = document.createElement("canvas");
    let [left, waiting] = [false, 0];
    const look = async () => {
      const taken_ms = performance.now();
      let rest = LEAST_MS;
      try {
        const picture = await pictureOf(video.current, canvas);
        if (picture) {
          const shown = await ask(camera, taken_ms / 1000, picture);
          if (!left) setFound({ shown, behind_s: (performance.now() - taken_ms) / 1000 });
        }
      } catch {
        rest = AFTER_TROUBLE_MS;
      }
      if (!left) waiting = window.setTimeout(() => void look(), Math.max(rest - (performance.now() - taken_ms), 0));
    };
    void look();
    return () => {
      left = true;
      clearTimeout(waiting);
    };
  }, [video, stream]);
  return found;
}

async function ask(camera: string, t_s: number, picture: Blob): Promise<MirrorOut> {
  return body(
    await client.POST("/api/live/mirror", {
      params: { query: { camera, t_s } },
      body: picture as never,
      bodySerializer: (content) => content,
      headers: { "Content-Type": "image/jpeg" },
    }),
  );
}
