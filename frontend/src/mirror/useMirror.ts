import { useEffect, useState, type RefObject } from "react";

import { body, client, type FaceOut, type MirrorOut } from "../api/client";
import { pictureOf } from "../shared/picture";

const EVERY_MS = 55; // between two pictures, where the answers keep up
const MOST_UNANSWERED = 2; // one is looked at while the next is on its way

type Ask<Seen> = (camera: string, t_s: number, picture: Blob) => Promise<Seen>;
/** What a mirror shows, on the page's own clock, and how far behind it is. */
export type Mirrored<Seen> = { shown: Seen | null; behind_s: number };

/** Sends the camera's pictures one after another; each is answered and forgotten. ask: the same function at every call; stream: null while nothing is sent. */
export function useMirror<Seen>(video: RefObject<HTMLVideoElement | null>, stream: MediaStream | null, ask: Ask<Seen>): Mirrored<Seen> {
  const [found, setFound] = useState<Mirrored<Seen>>({ shown: null, behind_s: 0 });
  useEffect(() => {
    if (!stream) return;
    const camera = crypto.randomUUID();
    const canvas = document.createElement("canvas");
    let unanswered = 0;
    let newest_ms = 0;
    let over = false;
    const look = async () => {
      if (over || unanswered >= MOST_UNANSWERED) return;
      unanswered += 1;
      const taken_ms = performance.now();
      try {
        const picture = await pictureOf(video.current, canvas);
        if (!picture) return;
        const shown = await ask(camera, taken_ms / 1000, picture);
        setTimeout(() => void look(), Math.max(0, taken_ms + EVERY_MS - performance.now())); // at once: on a busy machine the next tick comes late
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
    return () => {
      over = true;
      clearInterval(looking);
      setFound({ shown: null, behind_s: 0 });
    };
  }, [video, stream, ask]);
  return found;
}

const sent = (camera: string, t_s: number, picture: Blob) => ({
  params: { query: { camera, t_s } },
  body: picture as never,
  bodySerializer: (content: unknown) => content,
  headers: { "Content-Type": "image/jpeg" },
});

/** The three lanes of the last seconds. */
export const askLanes: Ask<MirrorOut> = async (...picture) => body(await client.POST("/api/live/mirror", sent(...picture)));
/** Where eyes and mouth are. */
export const askFace: Ask<FaceOut> = async (...picture) => body(await client.POST("/api/live/face", sent(...picture)));
