import { useEffect, useState, type RefObject } from "react";

import { body, client, type MirrorOut } from "../api/client";
import { pictureOf } from "../shared/picture";

const EVERY_MS = 55; // between two pictures, where the answers keep up
const MOST_UNANSWERED = 2; // one is looked at while the next is on its way

/** What the mirror shows: the lanes of the last seconds on the page's own clock, and how far behind they are. */
export type Mirrored = { shown: MirrorOut | null; behind_s: number };

/** Sends the camera's pictures one after another; each is answered and forgotten. */
export function useMirror(video: RefObject<HTMLVideoElement | null>, stream: MediaStream | null): Mirrored {
  const [found, setFound] = useState<Mirrored>({ shown: null, behind_s: 0 });
  useEffect(() => {
    if (!stream) return;
    const camera = crypto.randomUUID();
    const canvas = document.createElement("canvas");
    let unanswered = 0;
    let newest_ms = 0;
    const look = async () => {
      if (unanswered >= MOST_UNANSWERED) return;
      unanswered += 1;
      const taken_ms = performance.now();
      try {
        const picture = await pictureOf(video.current, canvas);
        if (!picture) return;
        const shown = await ask(camera, taken_ms / 1000, picture);
        if (taken_ms < newest_ms) return; // overtaken by a later one
        newest_ms = taken_ms;
        setFound({ shown, behind_s: (performance.now() - taken_ms) / 1000 });
      } catch {
        return; // the next picture is asked about soon
      } finally {
        unanswered -= 1;
      }
    };
    const looking = setInterval(() => void look(), EVERY_MS);
    return () => clearInterval(looking);
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
