import { csrfHeader } from "../api/client";
import type { Kept } from "./kept";

const PATIENCE_MS = 8000;

type Sending = { size: number; whole: boolean; sent: Promise<void> };
const going = new Map<string, Sending>();

/** Sends the next piece of a recording while it goes on, each after the one before. One that does not arrive ends it: the clip is sent whole when it is
 * done. */
export function sendPiece({ key, seat, set }: Kept, piece: Blob) {
  const one = going.get(key) ?? { size: 0, whole: true, sent: Promise.resolve() };
  going.set(key, one);
  const send = async () => {
    if (!one.whole) return;
    const whose = { student_id: seat.student.id, seat_id: seat.id, asked_id: seat.check.id, set_number: set ?? 0, at: one.size };
    const query = new URLSearchParams(Object.entries(whose).map(([name, value]) => [name, String(value)]));
    const headers = { ...csrfHeader(), "Content-Type": "application/octet-stream" };
    const asked = { method: "POST", body: piece, headers, signal: AbortSignal.timeout(PATIENCE_MS) };
    const arrived = await fetch(`/api/filming/${key}?${query}`, asked).then(
      (answer) => answer.ok,
      () => false,
    );
    if (arrived) one.size += piece.size;
    else one.whole = false;
  };
  one.sent = one.sent.then(send);
}

/** Bytes of a recording that came while it was filmed, once the last is there; null where a piece is missing. */
export async function came(key: string): Promise<number | null> {
  const one = going.get(key);
  await one?.sent;
  going.delete(key);
  return one?.whole ? one.size : null;
}

/** Nobody wants it: what came of it is deleted. */
export async function letGoPieces(key: string) {
  if (going.has(key) && (await came(key)) !== null)
    await fetch(`/api/filming/${key}`, { method: "DELETE", headers: csrfHeader() }).catch(() => undefined);
}
